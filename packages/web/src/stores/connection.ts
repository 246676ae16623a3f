import { defineStore } from 'pinia';
import { ref } from 'vue';

/** Whether the server answers, and its database. */
export const useConnection = defineStore('connection', () => ({ up: ref(true) }));
