//! The shop twin: what the shop's own pulls say of the model's constants.

use crate::jobs::aside;
use crate::problem::Problem;
use crate::shop::Lessons;
use actix_web::{post, web};
use serde::Deserialize;
use upper_lobe_core::analysis::{Build, ShopReport, Stages, shop_of, taught_by};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// To whom the shop speaks.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShopRequest {
    /// The document's text.
    pub document: String,
    /// The build it is of, whose kept revision does not count beside it.
    #[serde(default)]
    pub build: Option<i64>,
}

/// Constants of the model by build, family and shop, what they are worth, and what this build may take.
#[utoipa::path(request_body = ShopRequest, responses((status = 200, body = ShopReport), (status = 422, body = Problem)), tag = "workbench")]
#[post("/shop")]
pub async fn read_shop(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    lessons: web::Data<Lessons>,
    body: web::Json<ShopRequest>,
) -> Result<web::Json<ShopReport>, Problem> {
    let ShopRequest { document, build } = body.into_inner();
    let mut taught = lessons.taught(&store, build, &stages.into_inner()).await?;
    aside(move || {
        let build = Build::read(&document)?;
        taught.extend(taught_by(&build));
        Ok(shop_of(&build, &taught))
    })
    .await
    .map(web::Json)
}
