<!-- The pot cut through, to scale: where the sauce stands before and after, what boils off, and the balls in it. -->
<script lang="ts">
  import type { Pot } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    pot: Pot;
    diameter_mm: number;
    ball_mm: number;
    /** The share that is left, 0 to 1. */
    onleft: (frac: number) => void;
  }
  let { pot, diameter_mm, ball_mm, onleft }: Props = $props();
  const uid = $props.id();
  let width = $state(420);
  const balls = $derived(pot.balls ?? null);
  /** With balls all is to one scale; a shallow sauce alone is drawn higher than it is, by a whole number that is said. */
  const deep = $derived(
    balls ? Math.max(balls.pile_mm, balls.level_mm, pot.level_before_mm) + 14 : pot.level_before_mm * 1.5,
  );
  const scale = $derived(Math.min((width - 132) / diameter_mm, balls ? 230 / deep : Infinity));
  const higher = $derived(balls ? 1 : Math.max(1, Math.floor(190 / (deep * scale))));
  const wide = $derived(diameter_mm * scale);
  const height = $derived(deep * scale * higher + 12);
  const floor = $derived(height - 8);
  const y = (mm: number) => floor - mm * scale * higher;
  const stands = $derived(balls ? balls.level_mm : pot.level_after_mm);
  /** Balls lie in rows as wide as the pot; a section shows those along its middle. */
  const circles = $derived.by(() => {
    if (!balls) return [];
    const across = Math.max(1, Math.floor(diameter_mm / ball_mm));
    const rise = balls.layers > 1 ? (balls.pile_mm - ball_mm) / (balls.layers - 1) : 0;
    return [...Array(balls.layers).keys()].flatMap((layer) => {
      const shifted = layer % 2 === 1 && across > 1 ? 1 : 0;
      return [...Array(across - shifted).keys()].map((n) => ({
        x: ((n + 0.5 + shifted / 2) / across) * wide,
        y: y(ball_mm / 2 + layer * rise),
      }));
    });
  });
  const share = $derived(pot.cook.left_frac);
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const millimetres = (value: number) => amount({ kind: "length_mm", value }, units);
  const named = $derived(
    `${mass(pot.cook.start_g)} stand ${millimetres(pot.level_before_mm)} high; ${mass(pot.cook.water_g)} of water boil off and ${mass(pot.cook.left_g)} are left, ${millimetres(pot.level_after_mm)} high.` +
      (balls
        ? ` With ${balls.balls} balls in ${balls.layers === 1 ? "one layer" : `${balls.layers} layers`} it stands ${millimetres(balls.level_mm)} high.`
        : ""),
  );
  const clamp = (frac: number) => Math.min(1, Math.max(0.05, frac));
  /** Names beside levels that lie close together stand apart. */
  const low = $derived(Math.max(y(stands), y(pot.level_before_mm) + 30));
</script>

<div class="relative min-w-0" bind:clientWidth={width}>
  <svg
    {width}
    height={Math.max(height, low + 22)}
    role="img"
    aria-label={named}
    class="block overflow-visible select-none"
  >
    <defs>
      <pattern
        id={`${uid}-off`}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0v7" stroke="#8a6f62" stroke-width="1.5" />
      </pattern>
      <clipPath id={`${uid}-in`}><rect x="5" y="0" width={wide} height={floor} /></clipPath>
    </defs>
    <g clip-path={`url(#${uid}-in)`}>
      <rect
        x="5"
        y={y(pot.level_before_mm)}
        width={wide}
        height={Math.max(0, y(pot.level_after_mm) - y(pot.level_before_mm))}
        fill={`url(#${uid}-off)`}
        opacity="0.55"
      />
      <rect x="5" y={y(stands)} width={wide} height={floor - y(stands)} fill="#c0654c" />
      {#each circles as c, n (n)}
        <circle
          cx={5 + c.x}
          cy={c.y}
          r={(ball_mm / 2) * scale}
          fill="#5f3f33"
          class="stroke-base-content"
          stroke-width="0.75"
        />
      {/each}
    </g>
    <path
      d={`M3.5 4V${floor + 1.5}H${wide + 6.5}V4`}
      fill="none"
      class="stroke-base-content"
      stroke-width="3.5"
      stroke-linejoin="round"
    />
    <path
      d={`M5 ${y(pot.level_before_mm)}H${wide + 26}`}
      class="stroke-base-content"
      stroke-dasharray="5 4"
    />
    <path d={`M5 ${y(stands)}H${wide + 12}L${wide + 26} ${low}`} class="stroke-base-content" fill="none" />
    <text x={wide + 30} y={y(pot.level_before_mm) + 1} class="fill-base-content text-[12.5px]"
      >{mass(pot.cook.start_g)} in</text
    >
    <text x={wide + 30} y={low + 1} class="fill-base-content text-[12.5px] font-semibold"
      >{balls ? "with the balls" : `${mass(pot.cook.left_g)} left`}</text
    >
    <text x={wide + 30} y={low + 15} class="fill-quiet text-[12px]">{millimetres(stands)} high</text>
  </svg>
  {#if higher > 1}<p class="mt-1 text-[0.75rem] quiet">Heights drawn {higher} times as high.</p>{/if}
  {#if !balls}
    <DragHandle
      label="What is left in the pot"
      low={5}
      high={100}
      now={Math.round(share * 100)}
      text={`${mass(pot.cook.left_g)} left`}
      left={wide / 2 + 5}
      top={y(pot.level_after_mm) - 22}
      height={44}
      upright
      ondrag={(px) => onleft(clamp((floor - px) / (floor - y(pot.level_before_mm))))}
      onnudge={(steps) => onleft(clamp(share + steps / 100))}
    >
      {#snippet grip(held)}<span
          aria-hidden="true"
          class={[
            "absolute top-1/2 left-1/2 h-[13px] w-10 -translate-1/2 rounded-[3px] border-[2.5px] border-primary",
            held ? "bg-primary" : "bg-paper",
          ]}
        ></span>{/snippet}
    </DragHandle>
  {/if}
</div>
