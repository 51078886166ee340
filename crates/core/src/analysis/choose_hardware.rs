//! Decisions beside the cam, each by itself with the cam as it stands: the rocker's ratio, compression, runner and primary.

use super::choose_words::{decision_report, scale};
use super::choosing::{ChooseJob, Told};
use super::following::follow_report;
use crate::choose::{Idling, Region, axes, texts};
use crate::report::{ChooseReport, DecisionReport, FieldTexts, HardwareReport};
use crate::response::{Axis, Decision, Depth, Response};
use crate::work::Halted;
use std::sync::Arc;

/// What goes on.
const DOING: &str = "looking at rockers, compression, runners and primaries";

/// Pipes are tuned: over a fifth of their length a quadratic misses single speeds by 1 %, over a tenth by a third of that.
const PIPES: f64 = 0.5;

/// As far as a quadratic follows.
fn closer(axis: Axis) -> Axis {
    let is_pipe = matches!(axis.decision, Decision::Runner | Decision::Primary);
    Axis { reach: if is_pipe { PIPES * axis.reach } else { axis.reach }, ..axis }
}

impl ChooseJob {
    /// Adds what is beside the cam to a report, one decision after another, told as each is there.
    pub(super) fn beside_the_cam(&self, report: &mut ChooseReport, told: &Told<'_, '_>) -> Result<(), Halted> {
        for axis in axes(self.frame.now(), &Decision::HARDWARE, false) {
            report.hardware.push(self.beside(closer(axis), told)?);
            told.report(DOING, report);
        }
        Ok(())
    }

    fn beside(&self, axis: Axis, told: &Told<'_, '_>) -> Result<HardwareReport, Halted> {
        let response = self.along(axis, told)?;
        let stop = told.watch.stop;
        let idling = || Idling::of(&self.frame, &response.axes, &self.stages, stop);
        let margins = self.margins_with(&response, idling, stop)?;
        let guide = self.guide(&response, &margins);
        let decision = decision_report(&guide, &axis, self.frame.now(), false);
        let fields = self.fields(axis.decision, &decision);
        Ok(HardwareReport { stands: follow_report(&response, self.frame.now()), decision, fields })
    }

    /// The response along one decision, kept for whatever follows a drag of it.
    fn along(&self, axis: Axis, told: &Told<'_, '_>) -> Result<Arc<Response>, Halted> {
        let key = self.frame.key(&[axis.decision]);
        let is_there = |kept: &Arc<Response>| kept.place(self.frame.now()).iter().all(|x| x.abs() < 1e-6);
        if let Some(kept) = self.stages.along.kept(key).filter(is_there) {
            return Ok(kept);
        }
        let region = Region { axes: vec![axis], ..self.region(Depth::Whole, false) };
        let response = Arc::new(self.respond(&region, DOING, told)?);
        self.stages.along.keep(key, Arc::clone(&response));
        Ok(response)
    }

    /// What is written where for every value of a decision.
    fn fields(&self, decision: Decision, report: &DecisionReport) -> Vec<FieldTexts> {
        let path = format!("candidates[{}]", self.index);
        let scale = scale(decision);
        let mut fields: Vec<FieldTexts> = Vec::new();
        let mut moves: Vec<String> = Vec::new();
        for value in &report.value {
            for own in texts(&self.build, &path, &self.frame, decision, value / scale) {
                if own.moves && !moves.contains(&own.field) {
                    moves.push(own.field.clone());
                }
                match fields.iter_mut().find(|known| known.field == own.field) {
                    Some(known) => known.text.push(own.text),
                    None => fields.push(FieldTexts { field: own.field, text: vec![own.text] }),
                }
            }
        }
        fields.retain(|own| moves.contains(&own.field));
        fields
    }
}
