/**
 * A reference computed: {@link marvek.core.plan.ComputedLap} is the lap, {@link
 * marvek.core.plan.Drafter} writes a draft of it, and {@link marvek.core.plan.Answers} drives a
 * corner as its entry says. Answers is the door; the rest is package-private.
 */
package marvek.core.plan;
