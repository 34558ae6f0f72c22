/**
 * What laps say against a reference: where time is lost and why, what to change and how strong the
 * evidence is, whether a change kept its promise.
 */
package marvek.core.debrief;
