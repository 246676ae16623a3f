<script setup lang="ts">
import type { Call, Strand } from '@fadenweg/api';
import { computed } from 'vue';
import ValueHandle from '../record/ValueHandle.vue';
import { ms } from '../strands/duration-text.ts';
import { clock, count } from '../time/format.ts';
import { calledWords, endWords, tieWords, wentWords } from './call-words.ts';

/** All that is told of a call, each line by what it is. */
const props = defineProps<{ call: Call; related?: Strand['related'] }>();
defineEmits<{ select: [record: string] }>();
const delays = computed(() =>
  (
    [
      ['first heard after', props.call.postDialMs],
      ['rang for', props.call.ringingMs],
      ['taken or turned away after', props.call.setUpMs],
      ['talked for', props.call.talkingMs],
    ] as const
  ).filter(([, value]) => value !== null),
);
const codecs = computed(() => {
  const { offered, agreed } = props.call;
  if (offered.length === 0) return '';
  return agreed.length > 0 ? `${agreed.join(', ')}, of ${offered.join(', ')} offered` : `none agreed; offered ${offered.join(', ')}`;
});
const numbers = computed(() => [
  props.call.caller.name,
  props.call.called.name,
  ...(props.call.final === props.call.called.name ? [] : [props.call.final]),
]);
</script>
<template>
  <div>
    <ul v-if="call.amiss.length > 0" class="amiss" aria-label="What is amiss with the call">
      <li v-for="one in call.amiss" :key="one.trouble">
        {{ one.text }} <button type="button" class="link" @click="$emit('select', one.record)">the message</button>
      </li>
    </ul>
    <dl class="facts">
      <dt>Caller</dt>
      <dd>
        <ValueHandle field="phone" :value="call.caller.name || 'unknown'" identifier party />
        <span v-if="call.caller.display"> {{ call.caller.display }}</span><span v-if="call.caller.device" class="soft device">{{
          call.caller.device
        }}</span>
      </dd>
      <dt>Called</dt>
      <dd>
        <span class="mono">{{ calledWords(call) }}</span><span v-if="call.called.device" class="soft device">{{ call.called.device }}</span>
      </dd>
      <dt>Went</dt>
      <dd>
        {{ wentWords(call) }}<template v-if="endWords(call)">; {{ endWords(call) }}</template>
      </dd>
      <template v-for="[what, value] in delays" :key="what"
        ><dt>{{ what[0]!.toUpperCase() + what.slice(1) }}</dt>
        <dd>{{ ms(value!) }}</dd></template
      >
      <template v-if="codecs"
        ><dt>Codecs</dt>
        <dd>{{ codecs }}</dd></template
      >
      <template v-if="call.media.length > 0"
        ><dt>Media</dt>
        <dd>
          <span v-for="(one, i) in call.media" :key="i" class="row"
            >{{ one.kind }} to the {{ one.side }} at <span class="mono">{{ one.address }}:{{ one.port }}</span
            >{{ one.direction === 'sendrecv' ? '' : `, ${one.direction}` }}<em v-if="one.private">, an address of one network only</em></span
          >
        </dd></template
      >
      <template v-if="call.handedOn.length > 0"
        ><dt>Handed on</dt>
        <dd>
          <span v-for="one in call.handedOn" :key="one.record" class="row"
            ><button type="button" class="link" @click="$emit('select', one.record)">{{ clock(one.at) }}</button> by the {{ one.by }} to {{ one.to
            }}{{ one.taken === null ? '' : one.taken ? ', who took it' : `, which failed${one.status === null ? '' : ` (${one.status})`}` }}</span
          >
        </dd></template
      >
      <template v-if="call.repeated > 0"
        ><dt>Sent again</dt>
        <dd>{{ count(call.repeated) }} {{ call.repeated === 1 ? 'message' : 'messages' }}</dd></template
      >
      <template v-if="call.challenges > 0"
        ><dt>Asked who it is</dt>
        <dd>{{ count(call.challenges) }} {{ call.challenges === 1 ? 'time' : 'times' }}</dd></template
      >
      <template v-if="call.holds > 0"
        ><dt>Held</dt>
        <dd>{{ count(call.holds) }} {{ call.holds === 1 ? 'time' : 'times' }}</dd></template
      >
      <template v-if="related && related.length > 0"
        ><dt>About</dt>
        <dd>
          <span v-for="one in related" :key="one.strand" class="row"
            ><RouterLink :to="{ name: 'strand', params: { id: one.strand } }">{{ one.name }}</RouterLink>
            <span class="soft">{{ one.flowLabel }}</span></span
          >
        </dd></template
      >
      <dt>Call-ID</dt>
      <dd class="mono">
        <span v-for="one in call.callIds" :key="one" class="row">{{ one }}</span>
      </dd>
      <template v-if="call.ties.length > 0"
        ><dt>One call, since</dt>
        <dd>
          <span v-for="one in call.ties" :key="one.callIds.join(' ')" class="row" :title="one.callIds.join(' and ')">{{ tieWords(one) }}</span>
        </dd></template
      >
      <template v-if="call.unsound.length > 0"
        ><dt>Against the standard</dt>
        <dd>
          <span v-for="one in call.unsound" :key="one.record" class="row"
            >{{ one.text }} <button type="button" class="link" @click="$emit('select', one.record)">the message</button></span
          >
        </dd></template
      >
    </dl>
    <p>
      <RouterLink
        :to="{
          name: 'calls',
          query: {
            number: numbers
              .filter((one) => one !== '')
              .slice(0, 1)
              .join(','),
          },
        }"
        >All calls of {{ call.caller.name || 'this caller' }}</RouterLink
      ><slot name="next" />
    </p>
  </div>
</template>
<style scoped>
.facts {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 14px;
  margin: 6px 0 12px;
}
dt {
  color: var(--soft-ink);
}
dd {
  margin: 0;
  min-width: 0;
  overflow-wrap: anywhere;
}
.row,
.device {
  display: block;
}
.device {
  font-size: 12.5px;
}
.amiss {
  margin: 6px 0 10px;
  padding: 0 0 0 16px;
}
em {
  font-style: normal;
  color: var(--madder);
}
</style>
