package marvek.server.reference;

import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Hazards;
import marvek.core.review.LoadAlong;
import marvek.core.review.Warning;
import marvek.core.words.Sentence;

/** What an entry leads to, what the survey warns of there, and what does not go together. */
record AnswerView(
    CornerEntry entry,
    CornerAnswer answer,
    Sentence.Words words,
    Hazards hazards,
    List<Warning> warnings,
    LoadAlong load) {}
