//! Everything of a document on the dyno: its pulls compared, and the test it plans.

use super::pulled::{air_of, pulled};
use super::pulling::{Plan, Tested};
use super::pulling_words::{Told, report};
use super::test_plan::test_plan;
use crate::build::Build;
use crate::document::Fault;
use crate::report::{DynoReport, PullsReport};

/// What pulls of a document come to in an air, and the test it plans; no test while there is no candidate to run.
///
/// # Errors
/// An air that is none, or a candidate in the test that is not there.
pub fn dyno_of(build: &Build, air: Option<&str>) -> Result<DynoReport, Fault> {
    let standard = air_of(air)?;
    let all = pulled(build, standard);
    let plan = Plan::of(build);
    let tested = Tested::of(&all, &plan);
    let pulls = report(&Told { all: &all, plan: &plan, tested: &tested, standard });
    let has_candidates = !build.candidates().is_empty();
    let planned = has_candidates.then(|| test_plan(build, &plan, &all, &pulls)).transpose()?;
    Ok(DynoReport { pulls, plan: planned })
}

/// What pulls of a document come to in an air.
///
/// # Errors
/// An air that is none.
pub fn pulls_of(build: &Build, air: Option<&str>) -> Result<PullsReport, Fault> {
    let standard = air_of(air)?;
    let all = pulled(build, standard);
    let plan = Plan::of(build);
    Ok(report(&Told { all: &all, plan: &plan, tested: &Tested::of(&all, &plan), standard }))
}
