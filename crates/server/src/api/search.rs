//! A search, as it is computed: one JSON object a line.

use super::parts::shelf;
use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, SearchJob, SearchReport, SearchSetup, SearchStep, Stages};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// What to search for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SearchRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Goals, what may be changed, and how long to look; the usual where absent.
    #[serde(default)]
    pub setup: SearchSetup,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SearchDone {
    /// The report.
    report: Box<SearchReport>,
}

impl Reported for SearchJob {
    type Shown = SearchDone;

    fn shown(report: &SearchReport) -> SearchDone {
        SearchDone { report: Box::new(report.clone()) }
    }
}

/// Searches candidates of parts on the shelf and cams to be ground, and answers with finalists computed in full, as
/// `application/x-ndjson`. Stopped by ending the request; asked again, it goes on where it was.
#[utoipa::path(request_body = SearchRequest, responses((status = 200, body = Line<SearchStep, SearchDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/search")]
pub async fn search_candidates(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<SearchRequest>,
) -> Result<HttpResponse, Problem> {
    let (parts, stages) = (shelf(&store).await?, stages.into_inner());
    let job = aside(move || {
        let body = body.into_inner();
        let build = Build::read(&body.document)?;
        Ok(SearchJob::new(&build, body.candidate.as_deref(), parts, body.setup, stages)?)
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}
