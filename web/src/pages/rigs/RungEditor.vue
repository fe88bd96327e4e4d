<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { FieldProblem } from '@/shared/api/client'
import { completed, offered, wordAt, type Typing, type Word } from '@/pages/rigs/rungs'

const props = defineProps<{ words: Word[]; wrong: FieldProblem[] }>()
const text = defineModel<string>({ required: true })

const field = ref<HTMLTextAreaElement | null>(null)
const typing = ref<Typing | null>(null)
const chosen = ref(0)
const scrolled = ref({ left: 0, top: 0 })

const lines = computed(() => text.value.split('\n'))
const choices = computed(() => (typing.value ? offered(props.words, typing.value.text) : []))
const rows = computed(() => Math.min(Math.max(lines.value.length + 1, 12), 30))

/** Each line in pieces, so that a wrong word can be marked where it stands. */
const marked = computed(() =>
  lines.value.map((line, i) => {
    const here = props.wrong.find((one) => one.line === i + 1)
    if (!here?.column) return [{ text: line, wrong: false }]
    const from = here.column - 1
    const to = from + Math.max(here.length ?? 1, 1)
    return [
      { text: line.slice(0, from), wrong: false },
      { text: line.slice(from, to) || ' ', wrong: true },
      { text: line.slice(to), wrong: false },
    ]
  }),
)

function look() {
  const cursor = field.value?.selectionStart ?? 0
  typing.value = wordAt(text.value, cursor)
  chosen.value = 0
}

async function put(word: string, at: Typing | null = typing.value) {
  if (!at) return
  const next = completed(text.value, at, word)
  text.value = next.text
  typing.value = null
  await nextTick()
  field.value?.focus()
  field.value?.setSelectionRange(next.cursor, next.cursor)
}

/** Puts the suggestion in place of the word that is wrong. */
async function mend(one: FieldProblem) {
  if (!one.suggestion || !one.line || !one.column) return
  const start =
    lines.value.slice(0, one.line - 1).reduce((sum, line) => sum + line.length + 1, 0) + one.column - 1
  const end = start + (one.length ?? 0)
  text.value = text.value.slice(0, start) + one.suggestion + text.value.slice(end)
  await nextTick()
  field.value?.focus()
}

function key(event: KeyboardEvent) {
  if (!choices.value.length) return
  const word = choices.value[chosen.value]
  const acts: Record<string, () => void> = {
    ArrowDown: () => (chosen.value = (chosen.value + 1) % choices.value.length),
    ArrowUp: () => (chosen.value = (chosen.value + choices.value.length - 1) % choices.value.length),
    Tab: () => word && void put(word.id),
    Escape: () => (typing.value = null),
  }
  const act = acts[event.key]
  if (!act) return
  event.preventDefault()
  act()
}

function follow(event: Event) {
  const element = event.target as HTMLTextAreaElement
  scrolled.value = { left: element.scrollLeft, top: element.scrollTop }
}
</script>

<template>
  <div class="editor">
    <div class="paper">
      <div class="numbers mono" aria-hidden="true" :style="{ transform: `translateY(${-scrolled.top}px)` }">
        <span
          v-for="(_line, i) in lines"
          :key="i"
          :class="{ bad: wrong.some((one) => one.line === i + 1) }"
          >{{ i + 1 }}</span
        >
      </div>
      <div class="field">
        <pre
          class="under mono"
          aria-hidden="true"
          :style="{ transform: `translate(${-scrolled.left}px, ${-scrolled.top}px)` }"
        ><template v-for="(line, i) in marked" :key="i"><span v-for="(piece, j) in line" :key="j" :class="{ wrong: piece.wrong }">{{ piece.text }}</span>{{ '\n' }}</template></pre>
        <textarea
          ref="field"
          v-model="text"
          class="mono"
          :rows="rows"
          spellcheck="false"
          autocapitalize="off"
          autocomplete="off"
          wrap="off"
          :aria-label="$t('RungEditor.rungs')"
          :aria-invalid="wrong.length > 0"
          data-testid="rungs"
          @input="look"
          @click="look"
          @keydown="key"
          @scroll="follow"
          @blur="typing = null"
        ></textarea>
      </div>
    </div>
    <div v-if="wrong.length" class="wrong-list" role="alert">
      <ul>
        <li v-for="one in wrong" :key="`${one.line}.${one.column}`">
          <b>{{ $t('RungEditor.lineColumn', { line: one.line, column: one.column }) }}</b>{{ ' '
          }}<code v-if="one.word">{{ one.word }}</code>
          {{ one.problem }}
          <el-button v-if="one.suggestion" class="key" data-testid="mend" @click="mend(one)">
            {{ $t('RungEditor.put', { suggestion: one.suggestion }) }}
          </el-button>
        </li>
      </ul>
    </div>
    <!-- Over what follows, since it goes when the field is left: nothing that can be tapped must move then. -->
    <ul v-if="choices.length" class="choices" :aria-label="$t('RungEditor.words')" data-testid="choices">
      <li v-for="(word, i) in choices" :key="word.id">
        <button :class="{ chosen: i === chosen }" @mousedown.prevent="put(word.id)">
          <b class="mono">{{ word.id }}</b> {{ word.title
          }}<kbd v-if="i === chosen">{{ $t('RungEditor.tab') }}</kbd>
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.editor {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}

.paper {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  overflow: hidden;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--panel);
  font-size: 15px;
  line-height: 24px;
}

.paper:focus-within {
  outline: 3px solid var(--focus);
  outline-offset: 2px;
}

.numbers {
  padding: 8px 6px 8px 0;
  color: var(--ink-soft);
  text-align: right;
}

.numbers span {
  display: block;
}

.numbers .bad {
  color: var(--alarm);
  font-weight: 800;
}

.field {
  position: relative;
  overflow: hidden;
}

.under,
textarea {
  margin: 0;
  padding: 8px 10px;
  border: 0;
  font-size: 15px;
  line-height: 24px;
  white-space: pre;
  tab-size: 2;
}

.under {
  position: absolute;
  inset: 0 auto auto 0;
  color: transparent;
  pointer-events: none;
}

.wrong {
  background: var(--alarm-soft);
  border-bottom: 3px solid var(--alarm);
}

textarea {
  position: relative;
  display: block;
  width: 100%;
  resize: vertical;
  background: transparent;
  outline: none;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

.choices {
  position: absolute;
  z-index: 5;
  top: 100%;
  right: 0;
  left: 0;
  border: 2px solid var(--rule-strong);
  background: var(--panel);
}

.choices button {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 44px;
  padding: 0 10px;
  border: 0;
  background: transparent;
  text-align: left;
  cursor: pointer;
}

.choices .chosen,
.choices button:hover {
  background: var(--note-soft);
}

kbd {
  margin-left: auto;
  padding: 0 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  font-family: var(--font-mono);
}

.wrong-list li {
  padding: 6px 12px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
  overflow-wrap: anywhere;
}

code {
  padding: 0 4px;
  background: var(--panel);
  font-family: var(--font-mono);
}
</style>
