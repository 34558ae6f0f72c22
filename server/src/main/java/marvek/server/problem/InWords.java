package marvek.server.problem;

import marvek.core.said.Said;

/** Puts what is said into the words of whoever asks now. */
public interface InWords {
  /** Never fails: plain words where it is not known who asks, or how they like it. */
  String say(Said said);
}
