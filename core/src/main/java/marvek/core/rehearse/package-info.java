/**
 * Knowing a lap by heart: what there is to know, when it is asked again, and how well it is done at
 * speed.
 */
package marvek.core.rehearse;
