// jsdom has no CSS.escape; dialogs need it for their ids.
const view = 'document' in globalThis ? document.defaultView : null;
if (view) Object.assign(view, { CSS: { escape: (text: string) => text.replaceAll(/[^\w-]/g, '\\$&') } });

/** The test page has no layout: nothing ever changes its size. */
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

/** The test page receives no events from a server. */
if (!('EventSource' in globalThis)) Object.assign(globalThis, { EventSource: class {} });
