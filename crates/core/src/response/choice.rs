//! A value for every decision of a candidate. The numbers of the card are read from the four events and put into them: another
//! way to say the same cam, so that what follows the events follows the card.

use super::decision::Decision;
use crate::cam::{Events, Phasing};

/// A value for every decision that a candidate has; angles in crank degrees, lengths in m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choice([Option<f64>; Decision::COUNT]);

impl Choice {
    /// Nothing is decided.
    pub const fn nothing() -> Self {
        Self([None; Decision::COUNT])
    }

    /// The value of a decision; `None` where the candidate does not have it.
    pub fn get(&self, decision: Decision) -> Option<f64> {
        if decision.is_of_the_card() { card_number(self, decision) } else { self.0[decision.index()] }
    }

    /// Decides; a number of the card is put into the events, where all of them are decided.
    pub fn set(&mut self, decision: Decision, value: f64) {
        if decision.is_of_the_card() {
            *self = with_card_number(*self, decision, value);
        } else {
            self.0[decision.index()] = Some(value);
        }
    }

    /// The same with one decision made otherwise.
    #[must_use]
    pub fn with(mut self, decision: Decision, value: f64) -> Self {
        self.set(decision, value);
        self
    }

    /// The four events; `None` where one of them is not decided.
    pub fn events(&self) -> Option<Events> {
        Some(Events {
            intake_opens_btdc: self.get(Decision::IntakeOpens)?,
            intake_closes_abdc: self.get(Decision::IntakeCloses)?,
            exhaust_opens_bbdc: self.get(Decision::ExhaustOpens)?,
            exhaust_closes_atdc: self.get(Decision::ExhaustCloses)?,
        })
    }

    /// The same with these events.
    #[must_use]
    pub fn with_events(self, events: Events) -> Self {
        self.with(Decision::IntakeOpens, events.intake_opens_btdc)
            .with(Decision::IntakeCloses, events.intake_closes_abdc)
            .with(Decision::ExhaustOpens, events.exhaust_opens_bbdc)
            .with(Decision::ExhaustCloses, events.exhaust_closes_atdc)
    }

    /// Every value there is.
    pub fn values(&self) -> impl Iterator<Item = (Decision, f64)> {
        Decision::ALL.into_iter().zip(self.0).filter_map(|(decision, value)| Some((decision, value?)))
    }

    /// Every value as it is made.
    #[must_use]
    pub fn made(&self) -> Self {
        let mut made = *self;
        for (decision, value) in self.values() {
            made.set(decision, decision.made(value));
        }
        made
    }
}

/// What the card says of a choice, crank degrees; `None` where it does not decide every event, or of no number of the card.
fn card_number(choice: &Choice, number: Decision) -> Option<f64> {
    let events = choice.events()?;
    match number {
        Decision::IntakeDuration => Some(events.intake_duration()),
        Decision::ExhaustDuration => Some(events.exhaust_duration()),
        Decision::LobeSeparation => Some(events.phasing().separation()),
        Decision::IntakeCentreline => Some(events.phasing().intake_centreline),
        _ => None,
    }
}

/// The choice with a number of the card made otherwise: a duration about its centreline, separation with the intake held, the
/// intake centreline with separation held, which turns the whole cam. The same where it does not decide every event.
fn with_card_number(choice: Choice, number: Decision, to: f64) -> Choice {
    let Some(now) = choice.events() else { return choice };
    let (mut durations, mut phasing) = ([now.intake_duration(), now.exhaust_duration()], now.phasing());
    match number {
        Decision::IntakeDuration => durations[0] = to,
        Decision::ExhaustDuration => durations[1] = to,
        Decision::LobeSeparation => phasing = Phasing::from_card(to, phasing.intake_centreline),
        Decision::IntakeCentreline => phasing = Phasing::from_card(phasing.separation(), to),
        _ => return choice,
    }
    choice.with_events(phasing.events(durations[0], durations[1]))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// 224/230 at .050 on 110, installed at 106: opens 6 before top, closes 38 after bottom; opens 49 before bottom, closes 1
    /// after top (arithmetic of the trade by hand: half a duration less the centreline).
    fn cam() -> Choice {
        let events = [
            (Decision::IntakeOpens, 6.0),
            (Decision::IntakeCloses, 38.0),
            (Decision::ExhaustOpens, 49.0),
            (Decision::ExhaustCloses, 1.0),
        ];
        events.into_iter().fold(Choice::nothing(), |choice, (decision, deg)| choice.with(decision, deg))
    }

    #[test]
    fn a_card_is_read_from_its_events() {
        let card = Decision::CARD.map(|number| cam().get(number));
        assert_eq!(card, [Some(224.0), Some(230.0), Some(110.0), Some(106.0)]);
        assert_eq!(Choice::nothing().get(Decision::LobeSeparation), None);
    }

    #[test]
    fn each_number_moves_what_the_trade_says_and_nothing_else() {
        let moved = |number, to: f64| {
            let choice = cam().with(number, to);
            Decision::CAM[..4].iter().map(|event| choice.get(*event).unwrap()).collect::<Vec<_>>()
        };
        // In the order closing, exhaust opening, intake opening, exhaust closing.
        assert_eq!(moved(Decision::IntakeDuration, 228.0), [40.0, 49.0, 8.0, 1.0]);
        assert_eq!(moved(Decision::ExhaustDuration, 234.0), [38.0, 51.0, 6.0, 3.0]);
        assert_eq!(moved(Decision::LobeSeparation, 112.0), [38.0, 53.0, 6.0, -3.0]);
        assert_eq!(moved(Decision::IntakeCentreline, 102.0), [34.0, 53.0, 10.0, -3.0]);
    }
}
