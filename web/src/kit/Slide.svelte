<script lang="ts">
  interface Props {
    value: number;
    min: number;
    max: number;
    step: number;
    /** What it sets, for who does not see it. */
    label: string;
    /** The value as it stands on the handle. */
    text: string;
    name?: string;
    oninput: (value: number) => void;
  }
  let { value, min, max, step, label, text, name, oninput }: Props = $props();

  const share = $derived(max > min ? (value - min) / (max - min) : 0);
</script>

<span class="slide">
  <input
    type="range"
    aria-label={label}
    aria-valuetext={text}
    {name}
    {min}
    {max}
    {step}
    {value}
    oninput={(e) => oninput(Number(e.currentTarget.value))}
  />
  <output aria-hidden="true" style:left="calc({share} * (100% - 3.5rem))">{text}</output>
</span>

<style>
  .slide {
    position: relative;
    display: block;
    min-width: 7rem;
    height: 1.75rem;
  }
  .slide::before {
    content: '';
    position: absolute;
    inset: 0.8rem 0.25rem auto;
    border-top: 2px solid var(--color-base-content);
  }
  input {
    position: absolute;
    inset: 0;
    width: 100%;
    margin: 0;
    appearance: none;
    background: transparent;
    cursor: ew-resize;
    outline: none;
  }
  /* The native handle lies under the drawn one, as wide as it. */
  input::-webkit-slider-thumb {
    appearance: none;
    width: 3.5rem;
    height: 1.625rem;
    background: transparent;
    border: none;
  }
  input::-moz-range-thumb {
    width: 3.5rem;
    height: 1.625rem;
    background: transparent;
    border: none;
  }
  output {
    position: absolute;
    top: 0.125rem;
    width: 3.5rem;
    border: 1.5px solid var(--color-base-content);
    border-radius: 0.25rem;
    background: var(--color-base-100);
    font-size: 0.8125rem;
    font-weight: 600;
    line-height: 1.35rem;
    text-align: center;
    pointer-events: none;
  }
  input:focus-visible + output {
    outline: 2px solid var(--color-primary);
    outline-offset: 2px;
  }
</style>
