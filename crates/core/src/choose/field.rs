//! The ground of one kit of hardware: what every choice of the open decisions gives with it, in every goal and of every margin,
//! at a few microseconds a choice.

use super::frame::Frame;
use super::goal::{Beside, Goal};
use super::ground::{Margins, Predicted, predicted};
use super::idling::Idling;
use super::kit::{Kit, on_ratio};
use super::life::interval;
use super::motion::Motion;
use super::standing::Bound;
use crate::candidate::Stages;
use crate::document::Side;
use crate::front::Came;
use crate::limits::{ControlFinding, IDLE_VACUUM, LIMITING_SPEED};
use crate::quantity::Speed;
use crate::response::{Choice, Figures, Polynomial, Response, Terms, fit, placed};
use rayon::prelude::*;

/// One kit over a region.
#[derive(Debug, Clone)]
pub struct Field {
    /// The hardware.
    pub kit: Kit,
    /// What torque does.
    pub response: Response,
    /// What margins do.
    pub margins: Margins,
    /// Logarithm of the springs' interval.
    interval: Option<Polynomial>,
}

/// Least room of a nose that is searched to, of [`Frame::nose_room`], and what counts as much as what makes a margin tight
/// (assumed: from a tenth of the least on, smooth lobes were found for every demo build).
const NOSE: f64 = 0.03;
const NOSE_SCALE: f64 = 0.03;

/// A predicted choice.
#[derive(Debug, Clone, PartialEq)]
pub struct Foreseen {
    /// What its curve comes to.
    pub figures: Figures,
    /// What it comes to beside.
    pub beside: Beside,
    /// Every margin.
    pub margins: Vec<Predicted>,
    /// What is left of the least room of a nose, in its scale.
    pub nose: f64,
}

impl Field {
    /// Of a kit: `response` is that of the hardware that stands, `more` what the kit's curve has beside it, column by column,
    /// `motion` where control is lost with it, `idling` its vacuum at idle.
    pub fn of(
        kit: Kit,
        (response, stands): (&Response, &Frame),
        more: Option<&[f64]>,
        (motion, idling): (Motion, Option<Idling>),
        stages: &Stages,
    ) -> Option<Self> {
        let mut own = response.clone();
        own.carried_over(|choice| on_ratio(choice, stands, &kit.frame), more);
        let margins = Margins::of(&kit.frame, &own, stages)?.turning(motion, kit.frame.now()).idling(idling);
        let interval = interval_over(&kit.frame, &own, stages);
        Some(Self { kit, response: own, margins, interval })
    }

    /// The choice at a place of the region.
    pub fn choice(&self, place: &[f64]) -> Choice {
        placed(&self.response.axes, self.kit.frame.now(), place)
    }

    /// What a choice comes to.
    pub fn foreseen(&self, choice: &Choice) -> Foreseen {
        let margins = self.margins.at(&self.response, choice);
        let interval = self.interval.as_ref().and_then(|own| own.at(&self.response.place(choice)).first().copied());
        let beside = Beside { control: control_of(&margins), interval: interval.map(f64::exp), money: self.kit.money };
        let nose = (self.kit.frame.nose_room(choice) - NOSE) / NOSE_SCALE;
        Foreseen { figures: self.response.figures(choice), beside, margins, nose }
    }

    /// The same for a search: goals, each the more the better, then what is left of every limit in its scale.
    pub fn came(&self, goals: &[Goal], place: &[f64]) -> Came {
        let foreseen = self.foreseen(&self.choice(place));
        Came { goals: foreseen.worth(goals), margins: foreseen.room() }
    }
}

impl Foreseen {
    /// What it comes to in each goal, the more the better.
    pub fn worth(&self, goals: &[Goal]) -> Vec<f64> {
        goals.iter().map(|goal| goal.worth(&self.figures, &self.beside)).collect()
    }

    /// By how much limits are broken.
    pub fn broken(&self) -> f64 {
        self.margins.iter().map(Predicted::broken).sum::<f64>() + (-self.nose).max(0.0)
    }

    /// What is left of every limit that may not be broken, in its scale.
    pub fn room(&self) -> Vec<f64> {
        let hard = self.margins.iter().filter(|own| !own.margin.is_advice);
        hard.map(Predicted::room).chain([self.nose]).collect()
    }

    /// Vacuum that is foreseen at idle, Pa, where a plan asks for it.
    pub fn vacuum(&self) -> Option<f64> {
        let own = predicted(&self.margins, Bound { rule: &IDLE_VACUUM, side: None })?.margin;
        Some(own.left + own.need)
    }

    /// Where control is foreseen to be lost, where both valves' trains are known.
    pub fn control(&self) -> Option<ControlFinding> {
        let of = |side: Side| {
            let bound = Bound { rule: &LIMITING_SPEED, side: Some(side) };
            let own = predicted(&self.margins, bound)?.margin;
            Some(Speed::from_si(own.left + own.need).as_rpm())
        };
        Some(ControlFinding::of_rpm([of(Side::Intake)?, of(Side::Exhaust)?]))
    }
}

/// Rpm of control beyond a missed shift, the lower of both valves.
fn control_of(margins: &[Predicted]) -> Option<f64> {
    let own = margins.iter().filter(|own| std::ptr::eq(own.margin.bound.rule, &LIMITING_SPEED));
    let least = own.map(|own| own.margin.left).reduce(f64::min);
    least.map(|left| Speed::from_si(left).as_rpm())
}

fn interval_over(frame: &Frame, response: &Response, stages: &Stages) -> Option<Polynomial> {
    let own = |choice: &Choice| Some(interval(&frame.at(choice, stages))?.count.ln());
    let values: Option<Vec<Vec<f64>>> =
        response.points.par_iter().map(|point| own(&point.choice).map(|value| vec![value])).collect();
    let places: Vec<Vec<f64>> = response.points.iter().map(|point| response.place(&point.choice)).collect();
    Some(fit(Terms::held_by(places.len(), response.axes.len()), &places, &values?)?.polynomial)
}
