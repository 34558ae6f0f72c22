/**
 * What a reference holds: an entry a corner with its points, pedals and kerb use, days that differ,
 * and the whole as a file. Nothing is computed here but whether it can be. Start with {@link
 * marvek.core.entry.ReferenceContent} and {@link marvek.core.entry.CornerEntry}.
 */
package marvek.core.entry;
