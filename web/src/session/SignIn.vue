<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { Away, Refused } from '../api/client'
import { saidOf } from './said'
import { useSession } from './store'

const store = useSession()
const name = ref('')
const password = ref('')
const wrong = ref('')
const first = ref<{ focus: () => void }>()
// At once: the library's own autofocus comes late, and takes what is typed into the next field.
onMounted(() => first.value?.focus())

async function go(): Promise<void> {
  wrong.value = ''
  try {
    await store.signIn(name.value, password.value)
  } catch (error) {
    wrong.value = saidOf(error)
    if (!(error instanceof Refused) && !(error instanceof Away)) throw error
  }
}
</script>

<template>
  <main class="door">
    <h1>Proud Rake</h1>
    <p v-if="store.session?.first">
      This shop has no maker yet. Choose your name and a password; you can add others later.
    </p>
    <p v-else>Sign in to the shop.</p>
    <form @submit.prevent="go">
      <v-text-field ref="first" v-model="name" label="Name" name="name" autocomplete="username" />
      <v-text-field
        v-model="password"
        label="Password"
        name="password"
        type="password"
        :autocomplete="store.session?.first ? 'new-password' : 'current-password'"
        :error-messages="wrong"
      />
      <v-btn type="submit" color="primary" variant="flat">
        {{ store.session?.first ? 'Open the shop' : 'Sign in' }}
      </v-btn>
    </form>
  </main>
</template>

<style scoped>
.door {
  max-width: 24rem;
  margin: 16vh auto 0;
  padding: 0 1rem;
  display: grid;
  gap: 1rem;
}
form {
  display: grid;
  gap: 1rem;
}
</style>
