<script setup lang="ts">
import { Alert, Button, Form, FormItem, Input, InputPassword } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, unwrap } from '@/api/client'
import { useSession } from '@/composables/session'

const { me, signIn, signOut } = useSession()
const route = useRoute()
const router = useRouter()
const name = ref('')
const password = ref('')
const next = ref('')
const problem = ref('')
const busy = ref(false)

/** Whoever has a password from somebody else chooses another before going on. */
const choosing = computed(() => me.value?.temporary === true && password.value !== '')

async function submit() {
  busy.value = true
  problem.value = ''
  try {
    if (choosing.value) {
      await unwrap(
        api.POST('/manage/v1/users/me/password', {
          body: { current: password.value, next: next.value },
        }),
      )
      password.value = next.value
    }
    await signIn(name.value, password.value)
    if (me.value?.temporary) return
    const then =
      typeof route.query.then === 'string' && route.query.then.startsWith('/') ? route.query.then : '/'
    await router.push(then)
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}

async function other() {
  await signOut()
  password.value = ''
  next.value = ''
}
</script>

<template>
  <div class="shore">
    <section class="panel">
      <img src="/favicon.svg" alt="" width="44" height="44" />
      <h1>{{ choosing ? 'Choose your own password' : 'Sandpiper' }}</h1>
      <p class="quiet">
        {{
          choosing
            ? 'The one you signed in with was given to you by somebody else.'
            : 'Business objects as web services'
        }}
      </p>
      <Form v-if="choosing" layout="vertical" @submit.prevent="submit">
        <FormItem label="Next steps" html-for="next" extra="8 characters or more">
          <InputPassword id="next" v-model:value="next" autocomplete="new-password" autofocus size="large" />
        </FormItem>
        <Alert v-if="problem" type="error" :message="problem" show-icon class="problem" />
        <Button
          type="primary"
          html-type="submit"
          size="large"
          block
          :loading="busy"
          :disabled="next.length < 8"
        >
          Go on with this one
        </Button>
        <Button type="link" block @click="other">Sign out</Button>
      </Form>
      <Form v-else layout="vertical" @submit.prevent="submit">
        <FormItem label="Name" html-for="name">
          <Input id="name" v-model:value="name" autocomplete="username" autofocus size="large" />
        </FormItem>
        <FormItem label="Password" html-for="password">
          <InputPassword
            id="password"
            v-model:value="password"
            autocomplete="current-password"
            size="large"
          />
        </FormItem>
        <Alert v-if="problem" type="error" :message="problem" show-icon class="problem" />
        <Button
          type="primary"
          html-type="submit"
          size="large"
          block
          :loading="busy"
          :disabled="!name || !password"
        >
          Sign in
        </Button>
      </Form>
    </section>
  </div>
</template>

<style scoped>
.shore {
  height: 100vh;
  display: grid;
  place-items: center;
  background: linear-gradient(170deg, var(--rail) 0 46%, var(--sand-soft) 46.2% 47.5%, var(--ground) 47.8%);
}
.panel {
  width: 360px;
  background: var(--surface);
  border-radius: 12px;
  padding: 32px;
  box-shadow: 0 12px 40px #0b15182e;
}
h1 {
  margin-top: 12px;
  font-size: 24px;
}
p {
  margin: 2px 0 22px;
}
.problem {
  margin-bottom: 16px;
}
</style>
