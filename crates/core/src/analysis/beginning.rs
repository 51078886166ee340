//! What a build may begin from, and the first cam by the card with its reasons, as reports.

use super::shop::foretold;
use super::taught::Taught;
use crate::begin::{Because, Beginning, Begun, FAMILIES, begin, card_cam, words_of};
use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::document::{Fault, Faults, FormField, Ledger, Side, candidate_or_first, form_fields, set_field};
use crate::given::Source;
use crate::quantity::{Shown, UnitSystem};
use crate::report::{BecauseReport, FittedField, Named};
use crate::words::Word;
use serde::Serialize;

/// A family of engines as it is offered.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FamilyReport {
    /// Its word.
    pub family: String,
    /// As people say it.
    pub title: String,
    /// In a sentence.
    pub about: String,
    /// Uses it is offered for, the likeliest first.
    pub uses: Vec<String>,
    /// What its heads are cast of, the likeliest first.
    pub heads: Vec<String>,
}

/// Every family, in the order they are offered.
pub fn families() -> Vec<FamilyReport> {
    let report = |family: &crate::begin::Family| FamilyReport {
        family: family.kind.word().to_owned(),
        title: family.title.to_owned(),
        about: family.about.to_owned(),
        uses: words_of(family.uses),
        heads: words_of(family.heads),
    };
    FAMILIES.iter().map(report).collect()
}

/// A field that is asked for before a build begins.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Asked {
    /// The field, its text what is assumed or what was typed.
    pub field: FormField,
    /// Between what most engines of the family lie, as they are written; absent where nothing is said.
    pub range: Option<[String; 2]>,
}

/// A build that could begin, not kept anywhere.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BeginningReport {
    /// The whole document.
    pub document: String,
    /// What is asked, what settles most first.
    pub asked: Vec<Asked>,
    /// The first cam, decision by decision.
    pub because: Vec<BecauseReport>,
    /// What the shop's other builds of its kind foretell, in a sentence; absent where too few were on the dyno.
    pub shop: Option<String>,
}

/// Begins a build and says what is worth knowing first; with the constants that the shop's other builds foretell.
///
/// # Errors
/// Every fault of what is chosen and typed.
pub fn beginning(
    from: &Beginning,
    taught: &[Taught],
    system: UnitSystem,
    stages: &Stages,
) -> Result<BeginningReport, Faults> {
    let Begun { build, family, heads, card } = begin(from, system, stages)?;
    let next = foretold(&build, taught);
    let build = match &next {
        Some(next) => with_fields(build, &next.fields)?,
        None => build,
    };
    let fields = form_fields(build.value(), 0);
    let asked = family.asked().iter().filter_map(|path| {
        let field = fields.iter().find(|field| field.field == *path)?.clone();
        let range = family.figure(path, heads).map(|figure| [figure.low.to_owned(), figure.high.to_owned()]);
        Some(Asked { field, range })
    });
    Ok(BeginningReport {
        document: build.text(),
        asked: asked.collect(),
        because: card.map_or_else(Vec::new, |card| reasons(&card.because)),
        shop: next.map(|next| next.says),
    })
}

fn with_fields(build: Build, fields: &[FittedField]) -> Result<Build, Faults> {
    let mut value = build.value().clone();
    for own in fields {
        set_field(&mut value, &own.field, &own.text, UnitSystem::Metric)
            .map_err(|fault| Faults { faults: vec![fault] })?;
    }
    Build::from_value(value)
}

/// The cam that card rules give for a candidate's plan and engine, or what they lack.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CardCamReport {
    /// The decisions in their order; empty where something is lacking.
    pub because: Vec<BecauseReport>,
    /// What plan and engine lack for it.
    pub needs: Vec<Named>,
}

/// The card's cam for the candidate `id`.
///
/// # Errors
/// There is no such candidate.
pub fn card_cam_report(build: &Build, id: &str, stages: &Stages) -> Result<CardCamReport, Fault> {
    let views = build.candidates();
    let view = candidate_or_first(&views, Some(id))?;
    Ok(match card_cam(&Resolved::of(view, stages)) {
        Ok(card) => CardCamReport { because: reasons(&card.because), needs: Vec::new() },
        Err(gap) => {
            let ledger = Ledger::default();
            let source = Source::new(view, &ledger);
            let needs = gap.needs.iter().map(|place| {
                let input = source.node(place.of, Side::Intake).input(place.key);
                Named { field: input.field, label: input.label }
            });
            CardCamReport { because: Vec::new(), needs: needs.collect() }
        }
    })
}

pub(super) fn reasons(because: &[Because]) -> Vec<BecauseReport> {
    let report = |because: &Because| BecauseReport {
        decision: because.decision.to_owned(),
        value: because.value.clone(),
        why: Shown::plain(because.why.clone()),
        source: "common practice, no source".to_owned(),
    };
    because.iter().map(report).collect()
}
