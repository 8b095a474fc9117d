import type { Options } from 'react-hotkeys-hook';

const CHOICES = ['radio', 'checkbox'];

/** Whether keys belong to what is being typed in. Faders and choices leave them to the editor. */
function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !CHOICES.includes(target.type);
  return target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement;
}

/** Keys that count wherever the focus is, but where something is typed. */
export const EVERYWHERE: Options = {
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }) => isTyping(target),
};

/** Keys that also press what has the focus: there they belong to it. */
export const UNLESS_PRESSED: Options = {
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }) =>
    isTyping(target) ||
    (target instanceof Element && target.closest('button, input, a, [role=button]') !== null),
};

/** Keys of the history: also in a number's field while nothing is being typed into it. */
export const HISTORY: Options = {
  enableOnFormTags: true,
  preventDefault: true,
  ignoreEventWhen: ({ target }) =>
    isTyping(target) && !(target instanceof HTMLInputElement && target.hasAttribute('data-resting')),
};
