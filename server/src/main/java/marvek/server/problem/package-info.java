/** Refusals and failures as problem details (RFC 9457), each with where and what to do. */
package marvek.server.problem;
