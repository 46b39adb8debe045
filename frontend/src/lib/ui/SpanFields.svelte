<!-- A span of days, both counted: an end before the beginning moves with it. -->
<script lang="ts" module>
  export interface Span {
    from_day: string;
    to_day: string;
  }
</script>

<script lang="ts">
  import { dayAfter, dayName } from "../days";

  let { span, label, onpick }: { span: Span; label: string; onpick: (span: Span) => void } = $props();
  const field =
    "mt-0.5 block h-[2.625rem] rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 numeral text-base-content";
  const from = (from_day: string) =>
    onpick({ from_day, to_day: span.to_day < from_day ? dayAfter(from_day, 6) : span.to_day });
</script>

<p class="hidden print:block">{label}: {dayName(span.from_day)} to {dayName(span.to_day)}</p>
<label class="block text-[0.8125rem] quiet print:hidden"
  >{label}<input
    type="date"
    class={field}
    value={span.from_day}
    onchange={(e) => e.currentTarget.value && from(e.currentTarget.value)}
  /></label
>
<label class="block text-[0.8125rem] quiet print:hidden"
  >to<input
    type="date"
    class={field}
    value={span.to_day}
    min={span.from_day}
    onchange={(e) => e.currentTarget.value && onpick({ ...span, to_day: e.currentTarget.value })}
  /></label
>
