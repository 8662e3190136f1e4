// jsdom has no CSS.escape; dialogs need it for their ids.
const view = 'document' in globalThis ? document.defaultView : null;
if (view) Object.assign(view, { CSS: { escape: (text: string) => text.replaceAll(/[^\w-]/g, '\\$&') } });
