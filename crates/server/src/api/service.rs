//! The service log: what wears, what is due, and that as a calendar. Engines like it among the shop's other builds say what to expect.

use crate::jobs::aside;
use crate::problem::Problem;
use crate::service_calendar::calendar;
use crate::shop::Lessons;
use actix_web::{HttpResponse, post, web};
use serde::Deserialize;
use std::sync::Arc;
use upper_lobe_core::analysis::{Build, ServiceReport, Stages, UnitSystem, service_of};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// Whose log, and on which day it is read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ServiceRequest {
    /// The document's text.
    pub document: String,
    /// The day it is, as 2026-06-01: what is overdue depends on it.
    #[serde(default)]
    pub today: Option<String>,
    /// The build it is of, which is no other engine like it.
    #[serde(default)]
    pub build: Option<i64>,
    /// Units of a calendar's sentences.
    #[serde(default)]
    pub system: UnitSystem,
}

/// What the service log of a build comes to.
#[utoipa::path(request_body = ServiceRequest, responses((status = 200, body = ServiceReport), (status = 422, body = Problem)), tag = "workbench")]
#[post("/service")]
pub async fn read_service_log(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    lessons: web::Data<Lessons>,
    body: web::Json<ServiceRequest>,
) -> Result<web::Json<ServiceReport>, Problem> {
    let report = report((&store, &lessons), stages.into_inner(), body.into_inner()).await?;
    Ok(web::Json(report.0))
}

/// What is due as an iCalendar, with the days the log tells.
#[utoipa::path(request_body = ServiceRequest, responses((status = 200, body = String, content_type = "text/calendar"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/service/calendar")]
pub async fn service_calendar(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    lessons: web::Data<Lessons>,
    body: web::Json<ServiceRequest>,
) -> Result<HttpResponse, Problem> {
    let system = body.system;
    let (report, name) = report((&store, &lessons), stages.into_inner(), body.into_inner()).await?;
    let text = calendar(&report, &name, system).to_string();
    Ok(HttpResponse::Ok().content_type("text/calendar; charset=utf-8").body(text))
}

async fn report(
    (store, lessons): (&Store, &Lessons),
    stages: Arc<Stages>,
    request: ServiceRequest,
) -> Result<(ServiceReport, String), Problem> {
    let like = lessons.wear(store, request.build, &stages).await?;
    aside(move || {
        let build = Build::read(&request.document)?;
        let report = service_of(&build, (request.today.as_deref(), &like), &stages)?;
        Ok((report, build.name().to_owned()))
    })
    .await
}
