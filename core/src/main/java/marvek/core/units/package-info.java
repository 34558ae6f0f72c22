/** SI to what a person reads and back, and text in CSV that no program takes for a formula. */
package marvek.core.units;
