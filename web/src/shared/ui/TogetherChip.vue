<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { api } from '@/shared/api/client'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { PLACES, useOthers, useTogether, type Other, type Place } from '@/shared/ui/useTogether'
import { handsOf } from '@/shared/model/hands'
import { PAGES } from '@/shared/model/visitPages'

const { t } = useI18n()
/** Who else is in this visit, and whether hands are clear before a call is changed. */
const props = defineProps<{ visit: string }>()
useTogether(() => props.visit)
const { others, mine, asked, replies, waits } = useOthers()
const route = useRoute()
const catalogue = useCatalogue()
const open = ref(false)

const callTitle = (id: string | null | undefined) =>
  catalogue.value?.calls.find((one) => one.id === id)?.title ?? t('TogetherChip.anotherCall')
const atUnit = computed(() => others.value.filter((one) => one.at === 'outdoor' || one.at === 'air_handler'))
/** A call was changed here while somebody stands where it starts things. */
const toAsk = ref<string | null>(null)
watch(
  () => route.query.call,
  (now, before) => {
    if (!atUnit.value.length || now === before || typeof now !== 'string') return
    toAsk.value = now
    waits.value = false
    replies.clear()
    open.value = true
  },
)
/** Clear when each who stands at the unit has said so; one who has not answered, or says not yet, keeps the call. */
const hands = computed(() => handsOf(atUnit.value, replies))
watch(
  () => replies.size,
  (now) => now && (open.value = true),
)

function where(one: Other) {
  const page = PAGES.find((known) => known.path === one.page)?.title ?? one.page
  const place = PLACES.find((known) => known.id === one.at)?.title
  return [place, page, one.call ? callTitle(one.call) : null].filter(Boolean).join(' · ')
}

async function ask() {
  waits.value = true
  replies.clear()
  await api.sayHands(props.visit, {
    say: 'asked',
    call: (toAsk.value ?? route.query.call ?? null) as string | null,
  })
}

async function answer(say: 'clear' | 'not_yet') {
  await api.sayHands(props.visit, { say, call: asked.value?.call ?? null })
  asked.value = null
}
</script>

<template>
  <div class="together">
    <el-popover
      v-if="others.length"
      v-model:visible="open"
      trigger="click"
      placement="bottom-end"
      width="min(360px, calc(100vw - 24px))"
    >
      <template #reference>
        <el-button class="chip" data-testid="together">
          <i class="name">+ {{ others.length === 1 ? others[0]!.by : others.length }}</i
          ><i class="count">+ {{ others.length }}</i>
          <span class="hidden-label">{{ $t('TogetherChip.inThisVisitToo') }}</span>
        </el-button>
      </template>
      <div class="who" data-testid="together-list">
        <p v-for="one in others" :key="one.client">
          <b>{{ one.by }}</b> <span>{{ where(one) }}</span>
        </p>
        <p class="stand">{{ $t('TogetherChip.iStandAt') }}</p>
        <PickButtons
          :model-value="mine || null"
          :options="PLACES"
          :label="$t('TogetherChip.iStandAt')"
          testid="together-at"
          @update:model-value="(place: Place) => (mine = place)"
        />
        <div v-if="atUnit.length" class="hands">
          <p v-if="toAsk">
            <b>{{ $t('TogetherChip.beforeYouSetAtThe', { callTitle: callTitle(toAsk) }) }}</b>
            {{ $t('TogetherChip.standsWhereThingsStart', { by: atUnit[0]!.by }) }}
          </p>
          <el-button
            class="key solid wide"
            :disabled="waits && hands.state === 'waiting'"
            data-testid="ask-hands"
            @click="ask"
            >{{ $t('TogetherChip.askForHandsClear') }}</el-button
          >
          <p v-if="waits" role="status" data-testid="hands-answer">
            <b v-if="hands.state === 'clear'">{{ $t('TogetherChip.handsClear', { who: hands.who }) }}</b>
            <b v-else-if="hands.state === 'not_yet'">{{
              $t('TogetherChip.notYetLeaveTheCall', { who: hands.who })
            }}</b>
            <template v-else>{{ $t('TogetherChip.askedLeaveTheCallAs', { who: hands.who }) }}</template>
          </p>
        </div>
      </div>
    </el-popover>
    <el-dialog
      :model-value="asked !== null"
      :title="$t('TogetherChip.handsClear2')"
      width="min(420px, calc(100vw - 24px))"
      :show-close="false"
      :close-on-click-modal="false"
      :close-on-press-escape="false"
      data-testid="hands-asked"
    >
      <p v-if="asked" class="asked">
        {{
          $t('TogetherChip.isAboutToChangeThe', {
            by: asked.by,
            call: asked.call ? $t('TogetherChip.to', { callTitle: callTitle(asked.call) }) : '',
          })
        }}
      </p>
      <div class="answers">
        <el-button class="key solid" data-testid="hands-clear" @click="answer('clear')">{{
          $t('TogetherChip.handsClear3')
        }}</el-button>
        <el-button class="key" data-testid="hands-not-yet" @click="answer('not_yet')">{{
          $t('TogetherChip.notYet')
        }}</el-button>
      </div>
    </el-dialog>
  </div>
</template>

<style scoped>
.together {
  display: flex;
  margin-left: auto;
}

.chip {
  align-self: center;
  max-width: 160px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-height: var(--target);
  border: 2px solid var(--bar-accent);
  border-radius: 3px;
  background: transparent;
  color: var(--on-bar);
  font-weight: 650;
}

.chip i {
  font-style: normal;
}

.count {
  display: none;
}

@media (max-width: 640px) {
  .chip {
    padding: 0 8px;
  }

  .name {
    display: none;
  }

  .count {
    display: inline;
  }
}

.who {
  display: grid;
  gap: 8px;
  font-size: 16px;
}

.who span {
  color: var(--ink-soft);
}

.stand {
  padding-top: 6px;
  border-top: 1px solid var(--rule);
}

.hands {
  display: grid;
  gap: 8px;
}

.asked {
  padding-bottom: 14px;
  font-size: 18px;
}

.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
