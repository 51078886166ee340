//! The order of a candidate: as the page lays it out, and as a workbook.

use crate::jobs::aside;
use crate::order_sheet::workbook;
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, post, web};
use serde::Deserialize;
use upper_lobe_core::analysis::{Build, OrderCard, Stages, UnitSystem, order_card};
use utoipa::ToSchema;

/// Whose order card.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OrderRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
}

/// Whose order, as a workbook.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WorkbookRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
    /// Which revision it is, in words; nothing where nobody knows.
    #[serde(default)]
    pub revision: String,
    /// Units.
    #[serde(default)]
    pub system: UnitSystem,
}

/// The order card of a candidate.
#[utoipa::path(request_body = OrderRequest, responses((status = 200, body = OrderCard), (status = 422, body = Problem)), tag = "workbench")]
#[post("/order")]
pub async fn order(stages: web::Data<Stages>, body: web::Json<OrderRequest>) -> Result<web::Json<OrderCard>, Problem> {
    let stages = stages.into_inner();
    let card = aside(move || Ok(order_card(&Build::read(&body.document)?, &body.candidate, &stages)?));
    card.await.map(web::Json)
}

/// The type of an open workbook.
const WORKBOOK: &str = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

/// The same as a workbook of three sheets.
#[utoipa::path(request_body = WorkbookRequest, responses((status = 200, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", body = Vec<u8>), (status = 422, body = Problem)), tag = "workbench")]
#[post("/order/workbook")]
pub async fn order_workbook(
    stages: web::Data<Stages>,
    body: web::Json<WorkbookRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let bytes = aside(move || {
        let card = order_card(&Build::read(&body.document)?, &body.candidate, &stages)?;
        let refuse = |error: rust_xlsxwriter::XlsxError| {
            Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "no-workbook", error.to_string())
        };
        workbook(&card, &body.revision, body.system).map_err(refuse)
    });
    Ok(HttpResponse::Ok().content_type(WORKBOOK).body(bytes.await?))
}
