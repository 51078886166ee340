//! The report for an owner, as a page by itself in a tab of its own.

use super::history::stored_revisions;
use crate::jobs::aside;
use crate::owner_page::page;
use crate::problem::Problem;
use crate::shop::Lessons;
use actix_web::http::header::CONTENT_SECURITY_POLICY;
use actix_web::{HttpResponse, post, web};
use serde::Deserialize;
use upper_lobe_core::analysis::{Around, Build, Stages, UnitSystem, owner_of};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// Whose report; a form, so that it opens in a tab.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnerRequest {
    /// The document's text.
    pub document: String,
    /// The stored build it is of.
    pub build: i64,
    /// Identifier of the candidate; when absent the one that the log has in the engine, else the first.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Units.
    #[serde(default)]
    pub system: UnitSystem,
    /// The day it is, as 2026-06-01.
    #[serde(default)]
    pub today: Option<String>,
}

/// Nothing is fetched and nothing runs: the page is paper.
const PAPER: &str =
    "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

/// What an owner takes along: plan, cam, limits, torque, service, history and cautions, with pictures.
#[utoipa::path(request_body(content = OwnerRequest, content_type = "application/x-www-form-urlencoded"), responses((status = 200, body = String, content_type = "text/html"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/owner")]
pub async fn owner_report(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    lessons: web::Data<Lessons>,
    form: web::Form<OwnerRequest>,
) -> Result<HttpResponse, Problem> {
    let OwnerRequest { document, build, candidate, system, today } = form.into_inner();
    let revisions = stored_revisions(&store, build).await?;
    let stages = stages.into_inner();
    let like = lessons.wear(&store, Some(build), &stages).await?;
    let html = aside(move || {
        let around = Around { today: today.as_deref(), revisions: &revisions, like: &like };
        Ok(page(&owner_of(&Build::read(&document)?, candidate.as_deref(), &around, &stages)?, system))
    });
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_SECURITY_POLICY, PAPER))
        .content_type("text/html; charset=utf-8")
        .body(html.await?))
}
