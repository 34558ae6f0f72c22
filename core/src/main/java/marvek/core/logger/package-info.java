/**
 * A stand-in for a driver with a data logger: drives a reference with stated habits, writes what a
 * device would record, and tells the truth of what was done. It knows nothing of the code that
 * reads recordings.
 */
package marvek.core.logger;
