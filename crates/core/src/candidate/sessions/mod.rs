//! Sessions at the bench: what their readings come to, held against what the document expects, and what it would say by them. A
//! reading never changes a field by itself: it says what the field would be, and someone takes it or leaves it.

mod asked;
mod card;
mod cells;
mod degree;
mod gauges;
mod head;
mod lobes;
mod measured_by;
mod metal;
mod next;
mod pieces;
mod played;
mod repeats;
mod session;
mod sheet;
mod sisters;
mod springs;
mod stack;
mod told;

use super::resolve::Resolved;
use crate::document::Side;
use crate::given::{Of, Source};
use crate::report::{NextReading, PlayedReading, SessionReport, SessionSheet};
use crate::words::SessionKind;
pub use card::Came;
pub use head::most_play;
pub use measured_by::measured_by;
use session::{Bench, Session};
use told::Told;

/// Every session of the candidate, in the order of the document.
pub fn sessions(inputs: &Resolved, source: &Source<'_>, is_first: bool) -> Vec<SessionReport> {
    let all = all(source, is_first);
    let bench = Bench { inputs, source, all: &all };
    all.iter().map(|session| bench.report(session)).collect()
}

/// The session `id`; `None` where the candidate has no such session.
pub fn session(inputs: &Resolved, source: &Source<'_>, is_first: bool, id: &str) -> Option<SessionReport> {
    of_session((inputs, source, is_first), id, |bench, own| bench.report(own))
}

/// What the session `id` still asks for, in its order; `None` where the candidate has no such session.
pub fn session_ahead(inputs: &Resolved, source: &Source<'_>, is_first: bool, id: &str) -> Option<Vec<NextReading>> {
    of_session((inputs, source, is_first), id, |bench, own| next::ahead(&asked::rows(bench, own), own))
}

/// The session `id` on paper; `None` where the candidate has no such session.
pub fn session_sheet(inputs: &Resolved, source: &Source<'_>, is_first: bool, id: &str) -> Option<SessionSheet> {
    of_session((inputs, source, is_first), id, sheet::sheet)
}

/// What is made of the session `id`; `None` where the candidate has no such session.
fn of_session<T>(
    (inputs, source, is_first): (&Resolved, &Source<'_>, bool),
    id: &str,
    made: impl Fn(&Bench<'_>, &Session<'_>) -> T,
) -> Option<T> {
    let all = all(source, is_first);
    let bench = Bench { inputs, source, all: &all };
    all.iter().find(|own| own.node.text("id") == id).map(|own| made(&bench, own))
}

fn all<'a>(source: &'a Source<'_>, is_first: bool) -> Vec<Session<'a>> {
    let build = source.node(Of::Build, Side::Intake);
    let own = |session: &Session<'_>| session.is_of(source.candidate_id(), is_first);
    build.children("bench").into_iter().filter_map(Session::read).filter(own).collect()
}

/// Every figure of the cards that came with the candidate's cam; of two of one figure the later counts.
pub fn cam_as_it_came(source: &Source<'_>, is_first: bool) -> Vec<Came> {
    let all = all(source, is_first);
    all.iter().rev().filter(|own| own.kind == SessionKind::CamCard).flat_map(card::came).collect()
}

/// Every reading that the session `id` asks for, as the document's engine would give it; `None` without such a session.
pub fn session_played(inputs: &Resolved, source: &Source<'_>, is_first: bool, id: &str) -> Option<Vec<PlayedReading>> {
    of_session((inputs, source, is_first), id, played::played)
}

impl Bench<'_> {
    fn report(&self, session: &Session<'_>) -> SessionReport {
        let asked = asked::rows(self, session);
        self.told(session, &asked).report(session, next::standing(&asked, session), self.source)
    }

    /// What the readings come to; nothing is suggested while the units of one are in question.
    fn told(&self, session: &Session<'_>, asked: &[asked::Row]) -> Told {
        let mut told = self.of_kind(session).repeating(repeats::repeats(asked, session));
        let questions = played::other_units(self, session, asked);
        if !questions.is_empty() {
            told.said.clear();
            told.questions.extend(questions);
        }
        told
    }

    fn of_kind(&self, session: &Session<'_>) -> Told {
        match session.kind {
            SessionKind::DegreeIn => degree::told(self, session),
            SessionKind::LobeMap => lobes::told(self, session),
            SessionKind::LiftCheck => metal::lift_check(self, session),
            SessionKind::InstalledHeights => metal::heights(self, session),
            SessionKind::ValveDrop => metal::drops(self, session),
            SessionKind::Springs => springs::told(self, session),
            SessionKind::Compression => gauges::compression(session),
            SessionKind::LeakDown => gauges::leak_down(session),
            SessionKind::Stems => stack::stems(self, session),
            SessionKind::Decks => stack::decks(self, session),
            SessionKind::Pushrods => stack::pushrods(self, session),
            SessionKind::Adjustment => stack::adjustment(self, session),
            SessionKind::Clay => pieces::clay(self, session),
            SessionKind::Head => head::checks(session),
            SessionKind::RockerMass => pieces::rockers(self, session),
            SessionKind::Volumes => head::volumes(self, session),
            SessionKind::Flow => head::flows(self, session),
            SessionKind::CamCard => card::told(self, session),
        }
    }
}
