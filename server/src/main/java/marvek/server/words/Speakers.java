package marvek.server.words;

import java.util.NoSuchElementException;
import marvek.core.said.Said;
import marvek.core.units.Display;
import marvek.core.words.Catalogue;
import marvek.core.words.Speaker;
import marvek.core.words.Speech;
import marvek.server.access.Driver;
import marvek.server.account.Account;
import marvek.server.account.Accounts;
import marvek.server.problem.InWords;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/** How each person likes to be spoken to: asked of the database once a request. */
@Component
public class Speakers implements InWords {
  private static final Logger LOG = LoggerFactory.getLogger(Speakers.class);

  /** Region of a language of marked words, as in {@code Accept-Language: en-XA}. */
  private static final String PSEUDO = "XA";

  private static final String KEPT = Speakers.class.getName();

  private final Accounts accounts;

  Speakers(Accounts accounts) {
    this.accounts = accounts;
  }

  /** Units of a person. */
  public Display units(Driver driver) {
    return speech(driver).units();
  }

  /** Units of a person, and what they call corners by. */
  public Speech speech(Driver driver) {
    RequestAttributes request = RequestContextHolder.getRequestAttributes();
    String of = KEPT + driver.id();
    Object kept =
        request == null ? null : request.getAttribute(of, RequestAttributes.SCOPE_REQUEST);
    if (kept instanceof Speech speech) {
      return speech;
    }
    Account account = accounts.findById(driver.id()).orElseThrow();
    Speech speech =
        new Speech(account.display(), Speech.Call.valueOf(account.cornerWords().name()))
            .in(asked());
    if (request != null) {
      request.setAttribute(of, speech, RequestAttributes.SCOPE_REQUEST);
    }
    return speech;
  }

  /** The words that are asked for; marked ones for those who look for what has none of its own. */
  private static Catalogue asked() {
    return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
            && PSEUDO.equals(request.getRequest().getLocale().getCountry())
        ? Catalogue.MARKED
        : Catalogue.ENGLISH;
  }

  /** Speaks to a person. */
  public Speaker of(Driver driver) {
    return Speaker.of(speech(driver));
  }

  /** Speaks to whoever asks now; plainly where nobody does. */
  Speaker now() {
    Authentication who = SecurityContextHolder.getContext().getAuthentication();
    return who != null && who.getPrincipal() instanceof Driver driver
        ? of(driver)
        : Speaker.of(Speech.PLAIN.in(asked()));
  }

  @Override
  public String say(Said said) {
    Speaker speaker = Speaker.PLAIN;
    try {
      speaker = now();
    } catch (DataAccessException | NoSuchElementException | TransactionException e) {
      // The database does not answer, or the account is gone: that is said elsewhere.
      LOG.debug("Not known how they like to be spoken to", e);
    }
    return speaker.say(said);
  }
}
