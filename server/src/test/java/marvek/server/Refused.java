package marvek.server;

import marvek.core.refusal.Refusal;
import marvek.core.words.Speaker;

/** What a refusal says, in plain words. */
public final class Refused {
  private Refused() {}

  public static String what(Throwable refused) {
    return Speaker.PLAIN.say(((Refusal) refused).what());
  }
}
