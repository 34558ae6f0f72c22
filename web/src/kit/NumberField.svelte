<script lang="ts">
  interface Props {
    label: string;
    value: number | null | undefined;
    onset: (value: number | undefined) => void;
    placeholder?: string;
    min?: number;
    max?: number;
    step?: number | 'any';
    /** Shown before the field; a field in a drawing has its label unseen. */
    bare?: boolean;
  }
  let { label, value, onset, placeholder, min, max, step = 'any', bare = false }: Props = $props();
</script>

<label class="flex items-center gap-1">
  <span class={bare ? 'sr-only' : 'flex-1'}>{label}</span>
  <input
    class="input input-xs w-16"
    type="number"
    {min}
    {max}
    {step}
    {placeholder}
    value={value ?? ''}
    onchange={(e) => {
      const v = e.currentTarget.valueAsNumber;
      onset(Number.isFinite(v) ? v : undefined);
    }}
  />
</label>
