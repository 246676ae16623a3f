import { defineComponent, h } from 'vue';

/** Shows what is in it while it is open, in its place. */
export const VDialog = defineComponent({
  props: { modelValue: Boolean },
  emits: ['update:modelValue'],
  setup:
    (props, { slots }) =>
    () =>
      props.modelValue ? h('div', { role: 'dialog' }, slots.default?.()) : null,
});
