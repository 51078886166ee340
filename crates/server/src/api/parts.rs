//! The parts shelf: list, sheets in and out, a part tried in a candidate, a candidate's own kept as a part.

use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::http::header::{CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::{HttpResponse, delete, get, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::Stages;
use upper_lobe_core::analysis::UnitSystem;
use upper_lobe_core::analysis::{Build, Fault, Side};
use upper_lobe_core::analysis::{
    FitReport, LobeOutline, PartFigure, PartKind, ShelfPart as Part, fit, outlines, part_of, read_sheet, write_sheet,
};
use upper_lobe_store::{KeptPart, Put, Store};
use utoipa::{IntoParams, ToSchema};

/// A part with its figures in words.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShelfPart {
    /// The part itself, as an edit takes it.
    pub part: Part,
    /// Its figures, as typed.
    pub figures: Vec<PartFigure>,
}

/// What a sheet did to the shelf.
#[derive(Debug, Serialize, ToSchema)]
pub struct Imported {
    /// Parts that were not there.
    pub added: usize,
    /// Parts that are not as they were.
    pub changed: usize,
    /// Parts that were there as they are.
    pub unchanged: usize,
}

impl From<Put> for Imported {
    fn from(put: Put) -> Self {
        Self { added: put.added, changed: put.changed, unchanged: put.unchanged }
    }
}

/// A part as the store keeps it.
pub fn kept_part(part: &Part) -> Result<KeptPart, serde_json::Error> {
    let content = serde_json::to_string(part)?;
    Ok(KeptPart { kind: part.kind.word().to_owned(), name: part.name.clone(), content })
}

fn unwritable(error: &serde_json::Error) -> Problem {
    Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "unwritable-part", error.to_string())
}

/// Every part of the shelf, in the builder's order of kinds.
pub async fn shelf(store: &Store) -> Result<Vec<Part>, Problem> {
    let read = |kept: KeptPart| {
        serde_json::from_str::<Part>(&kept.content).map_err(|error| {
            let detail = format!("the part \"{}\" cannot be read: {error}", kept.name);
            Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "unreadable-part", detail)
        })
    };
    let mut parts: Vec<Part> = store.parts().await?.into_iter().map(read).collect::<Result<_, _>>()?;
    parts.sort_by(|a, b| (a.kind, &a.name).cmp(&(b.kind, &b.name)));
    Ok(parts)
}

/// Every part.
#[utoipa::path(responses((status = 200, body = [ShelfPart])), tag = "parts")]
#[get("/parts")]
pub async fn list_parts(store: web::Data<Store>) -> Result<web::Json<Vec<ShelfPart>>, Problem> {
    let parts = shelf(&store).await?;
    Ok(web::Json(parts.into_iter().map(|part| ShelfPart { figures: part.summary(), part }).collect()))
}

/// The lobes of one cam or lobe of the shelf.
#[derive(Debug, Serialize, ToSchema)]
pub struct DrawnPart {
    /// What it is.
    pub kind: PartKind,
    /// What it is called.
    pub name: String,
    /// Its lobes; none of a card that no smooth lobe carries.
    pub lobes: Vec<LobeOutline>,
}

/// Every cam and lobe of the shelf as it looks from the front.
#[utoipa::path(responses((status = 200, body = [DrawnPart])), tag = "parts")]
#[get("/parts/lobes")]
pub async fn draw_lobes(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
) -> Result<web::Json<Vec<DrawnPart>>, Problem> {
    let (parts, stages) = (shelf(&store).await?, stages.into_inner());
    let is_cam = |part: &Part| matches!(part.kind, PartKind::Cam | PartKind::Lobe);
    let drawn = web::block(move || {
        let cams = parts.into_iter().filter(is_cam);
        cams.map(|part| DrawnPart { lobes: outlines(&part, &stages), kind: part.kind, name: part.name }).collect()
    });
    Ok(web::Json(drawn.await?))
}

/// The shelf as a CSV file.
#[utoipa::path(responses((status = 200, body = String, content_type = "text/csv")), tag = "parts")]
#[get("/parts.csv")]
pub async fn export_parts(store: web::Data<Store>) -> Result<HttpResponse, Problem> {
    let text = write_sheet(&shelf(&store).await?);
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "text/csv; charset=utf-8"))
        .insert_header((CONTENT_DISPOSITION, "attachment; filename=\"parts.csv\""))
        .body(text))
}

/// A CSV file to read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sheet {
    /// Its text.
    pub text: String,
    /// Units of bare numbers whose heading names none.
    #[serde(default)]
    pub system: UnitSystem,
}

/// Puts the parts of a CSV file on the shelf, in the place of those of their names; all or none.
#[utoipa::path(request_body = Sheet, responses((status = 200, body = Imported), (status = 403, body = Problem), (status = 422, body = Problem)), tag = "parts")]
#[post("/parts/sheet")]
pub async fn import_parts(store: web::Data<Store>, body: web::Json<Sheet>) -> Result<web::Json<Imported>, Problem> {
    let read = read_sheet(&body.text, body.system)?;
    let parts = read.iter().map(kept_part).collect::<Result<Vec<_>, _>>().map_err(|error| unwritable(&error))?;
    Ok(web::Json(store.put_parts(&parts).await?.into()))
}

/// A part and the candidate it is tried in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Trial {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
    /// The part.
    pub part: Part,
    /// Only on this side; on both when absent.
    #[serde(default)]
    pub side: Option<Side>,
    /// Units of the answer's words.
    #[serde(default)]
    pub system: UnitSystem,
}

/// What a part would change, which margins it moves and what it drags along; nothing is changed.
#[utoipa::path(request_body = Trial, responses((status = 200, body = FitReport), (status = 422, body = Problem)), tag = "parts")]
#[post("/parts/fit")]
pub async fn try_part(stages: web::Data<Stages>, body: web::Json<Trial>) -> Result<web::Json<FitReport>, Problem> {
    let stages = stages.into_inner();
    let tried = web::block(move || -> Result<FitReport, Problem> {
        let Trial { document, candidate, part, side, system } = body.into_inner();
        Ok(fit(&Build::read(&document)?, &candidate, &part.checked()?, side, system, &stages)?)
    });
    tried.await?.map(web::Json)
}

/// What of a candidate becomes a part.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Keep {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
    /// Which of its parts.
    pub kind: PartKind,
    /// Of which side, where they differ.
    pub side: Side,
    /// Name of the new part.
    pub name: String,
}

/// Keeps what a candidate has as a part under a name of its own.
#[utoipa::path(request_body = Keep, responses((status = 201, body = Part), (status = 403, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem)), tag = "parts")]
#[post("/parts/keep")]
pub async fn keep_part(store: web::Data<Store>, body: web::Json<Keep>) -> Result<HttpResponse, Problem> {
    let build = Build::read(&body.document)?;
    let view = build.candidates().into_iter().find(|view| view.id == body.candidate);
    let index = view.ok_or_else(|| Fault::new("candidate", &body.candidate, "a candidate of the document"))?.index;
    let part = part_of(build.value(), index, body.kind, body.side, &body.name)?;
    store.add_part(&kept_part(&part).map_err(|error| unwritable(&error))?).await?;
    Ok(HttpResponse::Created().json(part))
}

/// Which part.
#[derive(Debug, Deserialize, IntoParams)]
pub struct Named {
    /// Its kind.
    pub kind: PartKind,
    /// Its name.
    pub name: String,
}

/// Takes a part off the shelf; builds that used it keep what they have of it.
#[utoipa::path(params(Named), responses((status = 204), (status = 403, body = Problem), (status = 404, body = Problem)), tag = "parts")]
#[delete("/parts")]
pub async fn remove_part(store: web::Data<Store>, named: web::Query<Named>) -> Result<HttpResponse, Problem> {
    store.remove_part(named.kind.word(), &named.name).await?;
    Ok(HttpResponse::NoContent().finish())
}
