//! The workbench: a document and edits in, the edited document and its analysis out. It keeps
//! nothing; saving is a matter of [`super::builds`].

use crate::api::parts::shelf;
use crate::api::preview::slim;
use crate::jobs::aside;
use crate::problem::Problem;
use actix_web::{post, web};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use upper_lobe_core::analysis::ShelfPart as Part;
use upper_lobe_core::analysis::UnitSystem;
use upper_lobe_core::analysis::{
    Analysis, Block, CandidateReport, Comparison, EventHandle, LimitReport, LobeReport, LobesApart, NextReading,
    PartName, Reading, Request, Shown, Sides, SpringsStay, Stages, StripReport, ahead_of, analyze, compare,
    event_handles, lobes_apart, money, readings,
};
use upper_lobe_core::analysis::{Build, Fault, FormField, form_fields, pull_fields, service_fields, session_fields};
use upper_lobe_core::analysis::{Edit, apply_all};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// What to edit and what to compute.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WorkbenchRequest {
    /// The document's text.
    pub document: String,
    /// Edits in order; all are made or none.
    #[serde(default)]
    pub edits: Vec<Edit>,
    /// Identifier of the candidate in view; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Parts wanted; all when absent. Breathing takes seconds and comes from the curve instead.
    #[serde(default)]
    pub parts: Option<Vec<PartName>>,
    /// Units that bare numbers are taken in.
    #[serde(default)]
    pub system: UnitSystem,
    /// Whether the form's fields are wanted.
    #[serde(default)]
    pub form: bool,
    /// Identifier of the session at the bench that is looked at: the form has its fields too.
    #[serde(default)]
    pub session: Option<String>,
    /// Identifier of the pull that is looked at: the form has its fields too.
    #[serde(default)]
    pub pull: Option<String>,
    /// Identifier of the entry of the service log that is looked at: the form has its fields too.
    #[serde(default)]
    pub entry: Option<String>,
    /// Identifier of a candidate to lay beside the one in view.
    #[serde(default)]
    pub beside: Option<String>,
    /// Whether every candidate is wanted side by side.
    #[serde(default)]
    pub table: bool,
    /// Whether it is asked while something is dragged: the document and what the edits do not move are left out, curves
    /// are rounded for drawing; whoever asks keeps what it has of them.
    #[serde(default)]
    pub preview: bool,
    /// Whether a preview brings the document all the same: something else is computed from it while it is dragged.
    #[serde(default)]
    pub follow: bool,
}

/// A candidate's tab.
#[derive(Debug, Serialize, ToSchema)]
pub struct CandidateTab {
    /// Stable identifier.
    pub id: String,
    /// Its name.
    pub name: String,
}

/// The edited document and its analysis.
#[derive(Debug, Serialize, ToSchema)]
pub struct WorkbenchAnswer {
    /// The document's text after the edits; unchanged text without any.
    pub document: String,
    /// The build's name.
    pub name: String,
    /// Every candidate.
    pub candidates: Vec<CandidateTab>,
    /// Place of the candidate in view in the document.
    pub candidate_index: usize,
    /// The analysis of the candidate in view.
    pub analysis: Analysis,
    /// The four events' handles.
    pub handles: Vec<EventHandle>,
    /// Figures to compare before and after.
    pub readings: Vec<Reading>,
    /// The form, when asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub fields: Option<Vec<FormField>>,
    /// What the session that is looked at still asks for, in its order: for a hand that goes on without an answer.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ahead: Option<Vec<NextReading>>,
    /// The candidate laid beside, when asked for and there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub beside: Option<Beside>,
    /// Every candidate side by side, when asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub table: Option<Vec<Column>>,
}

/// A candidate laid beside the one in view.
#[derive(Debug, Serialize, ToSchema)]
pub struct Beside {
    /// Stable identifier.
    pub id: String,
    /// Its name.
    pub name: String,
    /// Its curves.
    pub strip: Block<StripReport>,
    /// Its lobes.
    pub lobe: Block<Sides<LobeReport>>,
    /// What tells the lobes in view from them; absent while one of them is not known.
    pub lobes_apart: Option<Sides<LobesApart>>,
    /// What the candidate in view does that this one does not.
    pub comparison: Comparison,
}

/// One candidate of the comparison.
#[derive(Debug, Serialize, ToSchema)]
pub struct Column {
    /// Stable identifier.
    pub id: String,
    /// Its name.
    pub name: String,
    /// Its figures.
    pub readings: Vec<Reading>,
    /// Every margin, without remedies.
    pub limits: Vec<LimitReport>,
    /// Whether its springs can stay, in a sentence.
    pub springs_stay: Option<SpringsStay>,
    /// What its parts cost; absent where no price is given.
    pub money: Option<Shown>,
    /// What it does that the candidate in view does not.
    pub comparison: Comparison,
}

/// Edits a document and analyses the result.
#[utoipa::path(request_body = WorkbenchRequest, responses((status = 200, body = WorkbenchAnswer), (status = 422, body = Problem)), tag = "workbench")]
#[post("/workbench")]
pub async fn workbench(
    stages: web::Data<Stages>,
    store: web::Data<Store>,
    body: web::Json<WorkbenchRequest>,
) -> Result<web::Json<WorkbenchAnswer>, Problem> {
    let stages = stages.into_inner();
    let wanted = body.parts.as_ref().is_none_or(|parts| parts.contains(&PartName::Remedies));
    // Without a shelf remedies are those of the parts at hand.
    let shelf = if wanted { shelf(&store).await.unwrap_or_default() } else { Vec::new() };
    aside(move || work(&body, shelf.into(), &stages)).await.map(web::Json)
}

fn work(request: &WorkbenchRequest, shelf: Arc<[Part]>, stages: &Stages) -> Result<WorkbenchAnswer, Problem> {
    let build = apply_all(Build::read(&request.document)?, &request.edits, request.system, stages)?;
    let candidates: Vec<CandidateTab> =
        build.candidates().into_iter().map(|v| CandidateTab { id: v.id, name: v.name }).collect();
    let wanted = request.candidate.as_ref();
    // A candidate that undo took away leaves its tab to the first.
    let candidate_index = candidates.iter().position(|c| Some(&c.id) == wanted).unwrap_or(0);
    let mut parts = request.parts.clone().unwrap_or_else(PartName::cheap);
    parts.retain(|part| *part != PartName::Breathing);
    let candidate = candidates.get(candidate_index).map(|c| c.id.clone());
    let mut analysis = analyze(&build, &Request { candidate, parts, shelf }, stages)?;
    if request.preview {
        slim(&mut analysis, &request.edits);
    }
    let report = analysis.candidates.first();
    let beside = request.beside.as_ref().and_then(|id| beside(&build, id, report?, stages));
    let table = report.filter(|_| request.table).map(|report| table(&build, report, stages)).transpose()?;
    Ok(WorkbenchAnswer {
        document: if request.preview && !request.follow {
            String::new()
        } else if request.edits.is_empty() {
            request.document.clone()
        } else {
            build.text()
        },
        name: build.name().to_owned(),
        candidate_index,
        handles: report.map(event_handles).unwrap_or_default(),
        // A preview without limits is drawn, not read.
        readings: report
            .filter(|report| !request.preview || !report.limits.is_empty())
            .map(readings)
            .unwrap_or_default(),
        fields: request.form.then(|| {
            let session = request.session.as_ref().map(|id| session_fields(build.value(), id));
            let pull = request.pull.as_ref().map(|id| pull_fields(build.value(), id));
            let entry = request.entry.as_ref().map(|id| service_fields(build.value(), id));
            let looked_at = session.into_iter().chain(pull).chain(entry).flatten();
            form_fields(build.value(), candidate_index).into_iter().chain(looked_at).collect()
        }),
        ahead: request.session.as_ref().and_then(|id| ahead_of(&build, id, stages).ok()),
        beside,
        table,
        candidates,
        analysis,
    })
}

/// Parts that tell two candidates apart.
const COMPARED: [PartName; 4] = [PartName::Timing, PartName::Lift, PartName::Spring, PartName::Limits];

/// The candidate `id` and what `viewed` does differently; `None` when there is no such candidate.
fn beside(build: &Build, id: &str, viewed: &CandidateReport, stages: &Stages) -> Option<Beside> {
    let parts = [COMPARED.as_slice(), &[PartName::Strip, PartName::Lobe]].concat();
    let mut found = analyze(build, &Request::of(Some(id.to_owned()), parts), stages).ok()?;
    let other = found.candidates.pop()?;
    let comparison = compare(build, &other, viewed);
    let apart = viewed.lobe.done().zip(other.lobe.done()).map(|(viewed, other)| Sides {
        intake: lobes_apart(&viewed.intake, &other.intake),
        exhaust: lobes_apart(&viewed.exhaust, &other.exhaust),
    });
    let (strip, lobe) = (other.strip, other.lobe);
    Some(Beside { id: other.id, name: other.name, strip, lobe, lobes_apart: apart, comparison })
}

fn table(build: &Build, viewed: &CandidateReport, stages: &Stages) -> Result<Vec<Column>, Fault> {
    let all = analyze(build, &Request::of(None, COMPARED.to_vec()), stages)?;
    let column = |report: &CandidateReport| Column {
        id: report.id.clone(),
        name: report.name.clone(),
        readings: readings(report),
        limits: report.limits.clone(),
        springs_stay: report.springs_stay.clone(),
        money: money(build, &report.id),
        comparison: compare(build, viewed, report),
    };
    Ok(all.candidates.iter().map(column).collect())
}
