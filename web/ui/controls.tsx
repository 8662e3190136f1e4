import { Check, ChevronDown, X } from 'lucide-react';
import type { ReactNode, Ref } from 'react';
import {
  Button as AriaButton,
  Checkbox as AriaCheckbox,
  Dialog as AriaDialog,
  Select as AriaSelect,
  TextField as AriaTextField,
  Tooltip as AriaTooltip,
  type CheckboxProps,
  FieldError,
  Heading,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Menu,
  MenuItem,
  MenuTrigger,
  Modal,
  ModalOverlay,
  Popover,
  SelectValue,
  TextArea,
  type TextFieldProps,
  TooltipTrigger,
} from 'react-aria-components';
import styled, { css } from 'styled-components';
import { FONTS } from './theme';

const look = {
  main: css`background: var(--blue); color: var(--on-blue); border-color: var(--blue);`,
  plain: css`background: var(--sheet); color: var(--blue); border-color: var(--blue);`,
  quiet: css`background: transparent; color: var(--ink); border-color: transparent;`,
  danger: css`background: var(--sheet); color: var(--danger); border-color: var(--danger);`,
};

/** `main` once a screen, for the next step. */
export const Button = styled(AriaButton)<{ $look?: keyof typeof look; $small?: boolean }>`
  display: inline-flex; align-items: center; justify-content: center; gap: 7px;
  min-height: ${p => (p.$small ? 32 : 40)}px; padding: 0 ${p => (p.$small ? 10 : 16)}px;
  border: 1px solid; border-radius: 4px; cursor: pointer; white-space: nowrap;
  font: 600 ${p => (p.$small ? 14 : 15)}px ${FONTS.text}; text-decoration: none;
  ${p => look[p.$look ?? 'plain']}
  &[data-hovered] { filter: brightness(0.96); }
  &[data-pressed] { filter: brightness(0.9); }
  &[data-disabled] { opacity: 0.5; cursor: default; }
`;

export const IconButton = styled(AriaButton)`
  display: inline-flex; align-items: center; justify-content: center; width: 34px; height: 34px; padding: 0;
  border: 0; border-radius: 4px; background: transparent; color: var(--soft); cursor: pointer;
  &[data-hovered] { background: var(--tint); color: var(--blue); }
  &[data-disabled] { opacity: 0.35; cursor: default; }
`;

/** An icon says nothing to a screen reader or a newcomer: it always has a name and a hint. */
export function Hinted({ hint, children }: { hint: string; children: ReactNode }) {
  return (
    <TooltipTrigger delay={500}>
      {children}
      <Hint>{hint}</Hint>
    </TooltipTrigger>
  );
}
const Hint = styled(AriaTooltip)`
  background: var(--ink); color: var(--paper); border-radius: 4px; padding: 4px 9px; font-size: 13px; max-width: 280px;
  margin: 6px;
`;

export const fieldBox = css`
  width: 100%; min-height: 38px; padding: 6px 10px; border: 1px solid var(--strong); border-radius: 4px;
  background: var(--raised); color: var(--ink); font: 15px ${FONTS.text};
  &::placeholder { color: var(--soft); }
  &[data-focused] { outline: 2px solid var(--blue); outline-offset: 0; border-color: var(--blue); }
  &[data-invalid] { border-color: var(--danger); }
  &[data-disabled] { opacity: 0.6; }
`;
const StyledInput = styled(Input)`${fieldBox}`;
const StyledArea = styled(TextArea)`${fieldBox} resize: vertical; min-height: 64px;`;
export const FieldLabel = styled(Label)`font: 600 14px ${FONTS.label}; display: block; margin-bottom: 4px;`;
export const FieldProblem = styled(
  FieldError,
)`color: var(--danger); font-size: 13.5px; margin-top: 4px; display: block;`;
export const FieldHint = styled.p`color: var(--soft); font-size: 13.5px; margin-top: 4px;`;

export interface FieldProps extends TextFieldProps {
  label: string;
  hint?: string;
  problem?: string;
  placeholder?: string;
  rows?: number;
  inputRef?: Ref<HTMLInputElement>;
}

export function TextField({ label, hint, problem, placeholder, rows, inputRef, ...props }: FieldProps) {
  return (
    <AriaTextField {...props} isInvalid={Boolean(problem)}>
      <FieldLabel>{label}</FieldLabel>
      {rows ? (
        <StyledArea rows={rows} placeholder={placeholder} />
      ) : (
        <StyledInput ref={inputRef} placeholder={placeholder} />
      )}
      {hint && !problem ? <FieldHint>{hint}</FieldHint> : null}
      <FieldProblem>{problem}</FieldProblem>
    </AriaTextField>
  );
}

interface SelectProps<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange(value: T): void;
  hideLabel?: boolean;
  /** While the value is not one of the options. */
  placeholder?: string;
}

export function Select<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel,
  placeholder,
}: SelectProps<T>) {
  return (
    <AriaSelect
      value={options.some(o => o.value === value) ? value : null}
      placeholder={placeholder}
      onChange={key => key !== null && onChange(key as T)}
      aria-label={hideLabel ? label : undefined}
    >
      {hideLabel ? null : <FieldLabel>{label}</FieldLabel>}
      <SelectButton>
        <SelectValue />
        <ChevronDown size={16} aria-hidden />
      </SelectButton>
      <Popover>
        <Options>
          {options.map(o => (
            <Option key={o.value} id={o.value} textValue={o.label}>
              {o.label}
            </Option>
          ))}
        </Options>
      </Popover>
    </AriaSelect>
  );
}
const SelectButton = styled(AriaButton)`
  ${fieldBox} display: flex; align-items: center; justify-content: space-between; gap: 8px; cursor: pointer; text-align: left;
`;
const list = css`
  background: var(--raised); border: 1px solid var(--strong); border-radius: 4px; padding: 4px; max-height: 320px; overflow: auto;
`;
const listed = css`
  padding: 7px 10px; border-radius: 3px; cursor: pointer; color: var(--ink);
  &[data-focused] { background: var(--tint); outline: none; }
`;
const Options = styled(ListBox)`${list} min-width: 200px;`;
const Option = styled(ListBoxItem)`${listed} &[data-selected] { font-weight: 600; color: var(--blue); }`;

export function Checkbox({ children, ...props }: CheckboxProps & { children: ReactNode }) {
  return (
    <Tick {...props}>
      {({ isSelected }) => (
        <>
          <span className="box">{isSelected ? <Check size={14} strokeWidth={3} aria-hidden /> : null}</span>
          <span>{children}</span>
        </>
      )}
    </Tick>
  );
}
const Tick = styled(AriaCheckbox)`
  display: inline-flex; align-items: center; gap: 8px; min-height: 32px; cursor: pointer;
  .box {
    width: 20px; height: 20px; border: 1.5px solid var(--strong); border-radius: 3px; background: var(--raised);
    display: inline-flex; align-items: center; justify-content: center; color: var(--on-blue); flex: none;
  }
  &[data-selected] .box { background: var(--blue); border-color: var(--blue); }
  &[data-focus-visible] .box { outline: 2px solid var(--blue); outline-offset: 2px; }
`;

interface MenuButtonProps<T extends string> {
  /** A picture needs words beside it: see `says`. */
  label: ReactNode;
  says?: string;
  items: readonly { id: T; label: string }[];
  isDisabled?: boolean;
  onChoose(id: T): void;
}

/** A small button that opens a list of things to do. */
export function MenuButton<T extends string>({
  label,
  says,
  items,
  isDisabled,
  onChoose,
}: MenuButtonProps<T>) {
  return (
    <MenuTrigger>
      <Button $small $look="quiet" aria-label={says} isDisabled={isDisabled}>
        {label} <ChevronDown size={14} aria-hidden />
      </Button>
      <Popover>
        <Actions onAction={key => onChoose(key as T)}>
          {items.map(item => (
            <Action key={item.id} id={item.id}>
              {item.label}
            </Action>
          ))}
        </Actions>
      </Popover>
    </MenuTrigger>
  );
}
const Actions = styled(Menu)`${list} min-width: 130px; outline: none;`;
const Action = styled(MenuItem)`${listed}`;

interface DialogProps {
  title: string;
  isOpen: boolean;
  onClose(): void;
  children: ReactNode;
  width?: number;
}

export function Dialog({ title, isOpen, onClose, children, width }: DialogProps) {
  return (
    <Veil isOpen={isOpen} onOpenChange={open => !open && onClose()} isDismissable>
      <Sheet $width={width ?? 520}>
        <AriaDialog style={{ outline: 'none' }}>
          <DialogHead>
            <Heading slot="title">{title}</Heading>
            <IconButton aria-label="Close" onPress={onClose}>
              <X size={18} />
            </IconButton>
          </DialogHead>
          {children}
        </AriaDialog>
      </Sheet>
    </Veil>
  );
}
const Veil = styled(ModalOverlay)`
  position: fixed; inset: 0; background: rgb(20 24 28 / 45%); display: flex; align-items: flex-start; justify-content: center;
  padding: 9vh 16px 16px; z-index: 50;
`;
const Sheet = styled(Modal)<{ $width: number }>`
  background: var(--sheet); border: 1px solid var(--rule); border-radius: 8px; padding: 20px 24px 24px;
  width: min(${p => p.$width}px, 100%); max-height: 82vh; overflow: auto;
`;
const DialogHead = styled.div`
  display: flex; align-items: center; justify-content: space-between; margin-bottom: 12px;
  h2 { font-size: 20px; }
`;
