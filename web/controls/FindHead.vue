<script setup lang="ts">
/** The head of a place with many things: its name, what is searched, the order; what else it has comes after. */
import { Search } from '@lucide/vue';
import { ORDERS, type Order } from './finding';
import SelectField from './SelectField.vue';
import TextField from './TextField.vue';

defineProps<{ title: string; placeholder: string; label: string }>();
const wanted = defineModel<string>('wanted', { required: true });
const order = defineModel<Order>('order', { required: true });
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <TextField
      v-model="wanted"
      class="search"
      :prefix-icon="Search"
      type="search"
      :placeholder="placeholder"
      :aria-label="label"
    />
    <SelectField v-model="order" class="order" label="Order" :choices="ORDERS" />
    <slot />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-bottom: 14px;
  flex-wrap: wrap;
}
h1 {
  font-size: 19px;
  font-weight: 600;
}
.search {
  width: 250px;
}
.order {
  width: 124px;
}
</style>
