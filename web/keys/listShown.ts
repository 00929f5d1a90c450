import { ref } from 'vue';

/** Whether the keys of the open place are listed. */
export const listShown = ref(false);
