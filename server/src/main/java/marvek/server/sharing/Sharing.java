package marvek.server.sharing;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.said.Value;
import marvek.server.account.Account;
import marvek.server.account.Accounts;
import marvek.server.account.SignUp;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who besides its owner may see a reference. */
@Service
public class Sharing {
  private static final int MOST = 50;

  private final Shares shares;
  private final SessionLetIns sessions;
  private final Accounts accounts;
  private final Clock clock;

  Sharing(Shares shares, SessionLetIns sessions, Accounts accounts, Clock clock) {
    this.shares = shares;
    this.sessions = sessions;
    this.accounts = accounts;
    this.clock = clock;
  }

  /** The role that was given to somebody, if any. */
  @Transactional(readOnly = true)
  public Optional<Role> given(UUID reference, UUID person) {
    return shares.findByReferenceIdAndPersonIdAndConfirmedTrue(reference, person).map(Share::role);
  }

  /** Notes that somebody has opened what is open to them. */
  @Transactional
  public void seen(UUID reference, UUID person) {
    shares.seen(reference, person, clock.instant());
  }

  /** Who has made an account may have been given something before; its owner has the last word. */
  @EventListener
  @Transactional
  public void made(SignUp.Made account) {
    shares.has(account.email(), account.account());
  }

  @Transactional(readOnly = true)
  public List<SharedWith> people(UUID owner, UUID reference) {
    return shares.people(owner, reference);
  }

  /**
   * Opens a reference of the owner's to whoever has an address, or changes their role. Answers the
   * same whether or not somebody here has it.
   */
  @Transactional
  public void open(UUID owner, UUID reference, String email, Role role) {
    if (role == Role.OWNER) {
      throw Problem.bad("refusal.sharing.reference_one_owner").at("role");
    }
    String address = email.strip().toLowerCase(Locale.ROOT);
    @Nullable UUID person = accounts.findByEmail(address).map(Account::id).orElse(null);
    if (owner.equals(person)) {
      throw Problem.bad("refusal.sharing.your_own_address").at("email");
    }
    Optional<Share> present = shares.findByReferenceIdAndEmail(reference, address);
    if (present.isPresent()) {
      present.get().become(role, person);
      if (role != Role.COACH) {
        // A coach again is let in again, by the owner's word.
        sessions.deleteByShareId(present.get().id());
      }
      return;
    }
    if (shares.people(owner, reference).size() >= MOST) {
      throw Problem.bad("refusal.sharing.open_people_already", Value.figure(MOST, 0)).at("email");
    }
    shares.saveAndFlush(new Share(owner, reference, person, address, role, clock.instant()));
  }

  /** Lets a coach see what the driver knows by heart, or no longer. */
  @Transactional
  public void letIn(UUID owner, UUID reference, UUID share, boolean sees) {
    Share of =
        shares
            .findByIdAndReferenceIdAndOwnerId(share, reference, owner)
            .orElseThrow(() -> Problem.none("refusal.none.not_open_person"));
    if (sees && of.role() != Role.COACH) {
      throw Problem.bad("refusal.sharing.what_known_heart_shown").at("share");
    }
    of.letIn(sees);
  }

  /** Whether somebody may see what the driver of a reference knows by heart. */
  @Transactional(readOnly = true)
  public boolean seesRehearsed(UUID reference, UUID person) {
    return shares
        .findByReferenceIdAndPersonIdAndConfirmedTrue(reference, person)
        .filter(s -> s.role() == Role.COACH)
        .map(Share::seesRehearsed)
        .orElse(false);
  }

  /** Lets a coach see what was felt and said of a session for the reference, or no longer. */
  @Transactional
  public void letInto(UUID owner, UUID reference, UUID session, UUID share, boolean sees) {
    Share of =
        shares
            .findByIdAndReferenceIdAndOwnerId(share, reference, owner)
            .orElseThrow(() -> Problem.none("refusal.none.not_open_person"));
    sessions.deleteBySessionIdAndShareId(session, share);
    if (!sees) {
      return;
    }
    UUID person = of.personId();
    if (of.role() != Role.COACH || person == null || !of.opened()) {
      throw Problem.bad("refusal.sharing.what_felt_shown_coaches").at("share");
    }
    sessions.flush();
    sessions.saveAndFlush(new SessionLetIn(owner, session, share, person));
  }

  /** Shares by which somebody sees what was felt and said of a session. */
  @Transactional(readOnly = true)
  public Set<UUID> letInto(UUID session) {
    return sessions.findBySessionId(session).stream()
        .map(SessionLetIn::shareId)
        .collect(Collectors.toSet());
  }

  /** Sessions that a coach of a reference may see what was felt and said of. */
  @Transactional(readOnly = true)
  public List<UUID> sessionsSeen(UUID reference, UUID person) {
    return sessions.sessions(reference, person);
  }

  /** Closes a reference of the owner's to somebody. */
  @Transactional
  public void close(UUID owner, UUID reference, UUID share) {
    if (shares.deleteByIdAndReferenceIdAndOwnerId(share, reference, owner) == 0) {
      throw Problem.none("refusal.none.not_open_person");
    }
  }
}
