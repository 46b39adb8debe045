<!-- How a surface gives heat: metal and burner, an oven's air and broiler, or a fire and its lid. -->
<script lang="ts">
  import type { Kitchen, StoredKitchen } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import type { HeatingTyped } from "./heating";

  interface Props {
    kind: Kitchen["surfaces"][number]["kind"];
    typed: HeatingTyped;
    options: StoredKitchen["options"];
  }
  let { kind, typed = $bindable(), options }: Props = $props();
  const plain = (keys: readonly string[]) => keys.map((key) => ({ key, title: key }));
</script>

{#if kind === "plate" || kind === "pan"}
  <PickField
    label="Metal"
    width="9rem"
    value={typed.metal}
    options={options.metal ?? []}
    onpick={(key) => (typed.metal = key as HeatingTyped["metal"])}
  />
  <TextField
    label="Thickness"
    width="7rem"
    value={typed.thickness}
    placeholder="usual"
    hint="empty: the usual one"
    oninput={(t) => (typed.thickness = t)}
  />
  <PickField
    label="Burner under it"
    width="9rem"
    value={typed.power}
    options={options.power ?? []}
    onpick={(key) => (typed.power = key as HeatingTyped["power"])}
  />
{:else if kind === "oven"}
  <PickField
    label="Air"
    width="8rem"
    value={typed.fan ? "fan" : "still"}
    options={plain(["fan", "still"])}
    onpick={(key) => (typed.fan = key === "fan")}
  />
  <TextField
    label="Thermostat offset"
    width="7rem"
    value={typed.offset}
    hint="measured minus set; −10 is cooler"
    oninput={(t) => (typed.offset = t)}
  />
  <TextField
    label="Broiler radiant temperature"
    width="7rem"
    value={typed.broiler}
    hint="as a black body"
    oninput={(t) => (typed.broiler = t)}
  />
{:else}
  <PickField
    label="Fuel"
    width="8rem"
    value={typed.fuel}
    options={options.fuel ?? []}
    onpick={(key) => (typed.fuel = key as HeatingTyped["fuel"])}
  />
  <PickField
    label="The fire lies"
    width="9rem"
    value={typed.layout}
    options={options.layout ?? []}
    onpick={(key) => (typed.layout = key as HeatingTyped["layout"])}
  />
  <PickField
    label="Lid"
    width="6rem"
    value={typed.lid ? "yes" : "no"}
    options={plain(["yes", "no"])}
    onpick={(key) => (typed.lid = key === "yes")}
  />
  <TextField
    label="Outdoor temperature"
    width="7rem"
    value={typed.outdoor}
    oninput={(t) => (typed.outdoor = t)}
  />
  <TextField
    label="A load lasts, min"
    width="7rem"
    value={typed.lasts}
    placeholder="usual"
    hint="a reminder only: it makes a remark"
    oninput={(t) => (typed.lasts = t)}
  />
{/if}
<TextField
  label="Heat transfer ×"
  width="6rem"
  value={typed.factor}
  hint="1 until readings say otherwise"
  oninput={(t) => (typed.factor = t)}
/>
