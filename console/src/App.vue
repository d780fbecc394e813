<script setup lang="ts">
import { BulbOutlined, KeyOutlined, LogoutOutlined } from '@ant-design/icons-vue'
import { App as AntApp, ConfigProvider, Tooltip } from 'ant-design-vue'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { PLACE } from './api/place'
import OwnPassword from './components/OwnPassword.vue'
import SignInAgain from './components/SignInAgain.vue'
import GuideStrip from './components/GuideStrip.vue'
import InstanceStrip from './components/InstanceStrip.vue'
import CommandPalette from './components/CommandPalette.vue'
import { useAppearance } from './composables/appearance'
import { useGuide } from './composables/guide'
import { usePages } from './composables/pages'
import { useSession } from './composables/session'

const { on } = useGuide()
const { theme, toggle } = useAppearance()
const { me, signOut, may } = useSession()
const route = useRoute()
const router = useRouter()

const pages = usePages()

const isHere = (path: string) => (path === '/' ? route.path === '/' : route.path.startsWith(path))

const changing = ref(false)

async function changed() {
  changing.value = false
  await router.push('/sign-in')
  location.reload()
}

async function leave() {
  await signOut()
  await router.push('/sign-in')
}
</script>

<template>
  <ConfigProvider :theme="theme">
    <AntApp style="height: 100%">
      <div v-if="me && route.name !== 'sign-in'" class="frame">
        <nav class="rail" aria-label="Pages">
          <RouterLink to="/" class="mark" aria-label="Sandpiper">
            <img src="/favicon.svg" alt="" width="30" height="30" />
          </RouterLink>
          <RouterLink
            v-for="page in pages"
            :key="page.name"
            :to="page.path"
            :class="['place', { here: isHere(page.path) }]"
          >
            <component :is="page.icon" />
            <span>{{ page.title }}</span>
          </RouterLink>
          <div class="spacer"></div>
          <Tooltip title="Light or dark" placement="right">
            <button class="place" aria-label="Light or dark" @click="toggle"><BulbOutlined /></button>
          </Tooltip>
          <Tooltip v-if="!PLACE" title="Your password and sessions" placement="right">
            <button class="place" aria-label="Your password and sessions" @click="changing = true">
              <KeyOutlined />
            </button>
          </Tooltip>
          <Tooltip v-if="!PLACE" :title="`Sign out (${me.name})`" placement="right">
            <button class="place" aria-label="Sign out" @click="leave"><LogoutOutlined /></button>
          </Tooltip>
        </nav>
        <div class="content">
          <InstanceStrip />
          <GuideStrip v-if="on && may('design')" />
          <main><RouterView /></main>
        </div>
        <CommandPalette />
        <SignInAgain />
        <OwnPassword v-if="changing" @changed="changed" @left="changing = false" />
      </div>
      <RouterView v-else />
    </AntApp>
  </ConfigProvider>
</template>

<style scoped>
.frame {
  display: flex;
  height: 100vh;
}
.rail {
  width: 88px;
  background: var(--rail);
  display: flex;
  flex-direction: column;
  align-items: stretch;
  padding: 10px 6px;
  gap: 1px;
}
.mark {
  display: flex;
  justify-content: center;
  padding: 2px 0 8px;
}
.place {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  padding: 5px 2px;
  border-radius: 8px;
  color: var(--rail-text);
  background: none;
  border: 0;
  font: inherit;
  font-size: 11.5px;
  cursor: pointer;
}
.place :deep(.anticon) {
  font-size: 18px;
}
.place:hover {
  background: #ffffff14;
  text-decoration: none;
}
.here {
  color: var(--rail-active);
  background: #ffffff1c;
}
.content {
  flex: 1;
  min-width: 0;
  height: 100vh;
  overflow: hidden;
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  min-height: 0;
}
/* The rail becomes a bar at the foot that scrolls sideways. */
@media (max-width: 700px) {
  .frame {
    flex-direction: column-reverse;
    height: 100dvh;
  }
  .rail {
    width: auto;
    flex-direction: row;
    padding: 4px 6px calc(4px + env(safe-area-inset-bottom));
    overflow-x: auto;
    scrollbar-width: none;
  }
  .mark {
    display: none;
  }
  .place {
    flex: none;
    min-width: 68px;
    padding: 6px 4px;
  }
  .rail .spacer {
    flex: none;
    width: 12px;
  }
  .content {
    min-height: 0;
    height: auto;
  }
}
</style>
