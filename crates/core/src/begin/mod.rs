//! A beginning: a likely engine of an invented family with every value that computation needs, each marked assumed, and
//! a first cam by the card rules of the trade. What the owner knows replaces what was assumed.

mod card_cam;
mod family;
mod head;
mod known;
mod train;
mod write;

pub use card_cam::{Because, CardCam, card_cam};
pub use family::{FAMILIES, Family, Figure, UseFigures, petrol_use};
pub use known::Known;
pub use train::usual_setting;
pub(crate) use write::put_card_cam;

use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::document::{Fault, Faults, set_field};
use crate::quantity::UnitSystem;
use crate::words::{Casting, FamilyKind, Word};
use serde::Deserialize;
use serde_json::{Value, json};
use write::Draft;

/// What a build begins from.
#[derive(Debug, Clone, PartialEq, Eq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Beginning {
    /// What it is called.
    pub name: String,
    /// Word of the family.
    pub family: String,
    /// What its heads are cast of; the family's likeliest when absent.
    #[serde(default)]
    pub heads: Option<String>,
    /// What it is for; the family's likeliest when absent.
    #[serde(default, rename = "use")]
    pub used_for: Option<String>,
    /// What is known already.
    #[serde(default)]
    pub known: Vec<Known>,
}

/// A build that has begun.
#[derive(Debug, Clone)]
pub struct Begun {
    /// The build.
    pub build: Build,
    /// What it was begun from.
    pub family: &'static Family,
    /// What its heads are cast of.
    pub heads: Casting,
    /// The first cam by the card; `None` where plan and engine lack something for it.
    pub card: Option<CardCam>,
}

/// The build of a beginning; bare numbers take the units of `system`.
///
/// # Errors
/// A name that is none, words nobody knows, and every fault of what is typed.
pub fn begin(from: &Beginning, system: UnitSystem, stages: &Stages) -> Result<Begun, Faults> {
    let family = Family::of(read("family", &from.family)?);
    let heads = choose("heads", from.heads.as_deref(), family.heads)?;
    let used_for = choose("use", from.used_for.as_deref(), family.uses)?;
    let mut value = Build::blank(&from.name)?.value().clone();
    value["use"] = json!(used_for.word());
    value["begun_from"] = json!(family.kind.word());
    let known: Vec<&Known> = from.known.iter().filter(|known| !known.text.trim().is_empty()).collect();
    let mut faults = Vec::new();
    for known in &known {
        let set = set_field(&mut value, &known.field, &known.text, system);
        faults.extend(set.err());
    }
    if !faults.is_empty() {
        return Err(Faults { faults });
    }
    // Ranges first, so that what follows may trust what was typed.
    Build::from_value(value.clone())?;
    let mut draft = Draft::new(value, family, heads, used_for);
    draft.engine();
    draft.train();
    let build = Build::from_value(draft.value.clone())?;
    let card = build.candidates().first().and_then(|view| card_cam(&Resolved::of(view, stages)).ok());
    if let Some(card) = &card {
        put_card_cam(&mut draft.value, 0, card);
        draft.springs(card);
    }
    draft.mark(&known);
    Ok(Begun { build: Build::from_value(draft.value)?, family, heads, card })
}

fn read<W: Word>(field: &str, word: &str) -> Result<W, Fault> {
    W::from_word(word).ok_or_else(|| Fault::new(field, word, format!("one of {}", W::WORDS.join(", "))))
}

fn choose<W: Word>(field: &str, word: Option<&str>, offered: &[W]) -> Result<W, Fault> {
    let Some(word) = word.filter(|word| !word.is_empty()) else { return Ok(offered[0]) };
    let chosen: W = read(field, word)?;
    if offered.contains(&chosen) {
        return Ok(chosen);
    }
    let words: Vec<_> = offered.iter().map(|word| word.word()).collect();
    Err(Fault::new(field, word, format!("one of {}", words.join(", "))))
}

/// What is typed beyond what engines of the family have, in a sentence each: values assumed from it may not go with it.
pub fn strangers(document: &Value) -> Vec<String> {
    use crate::document::{get, kind_of, spoken_label};
    use crate::quantity::parse;
    let word = document.get("begun_from").and_then(Value::as_str);
    let Some(kind) = word.and_then(FamilyKind::from_word) else { return Vec::new() };
    let family = Family::of(kind);
    let heads = document.pointer("/engine/head_material").and_then(Value::as_str).and_then(Casting::from_word);
    let heads = heads.filter(|heads| family.heads.contains(heads)).unwrap_or(family.heads[0]);
    let beyond = |figure: &Figure| -> Option<String> {
        let text = get(document, figure.field)?.as_str()?;
        let dimension = kind_of(figure.field)?.dimension()?;
        let [have, low, high] = [text, figure.low, figure.high].map(|text| parse(text, dimension).ok());
        let (have, low, high) = (have?, low?, high?);
        (!(low..=high).contains(&have)).then(|| {
            format!(
                "{} {text} is not what a {} has ({} to {}): what is still assumed from it may not go with yours",
                spoken_label(figure.field),
                family.title.to_lowercase().replace("v8", "V8"),
                figure.low,
                figure.high
            )
        })
    };
    family.figures.iter().chain(family.heads(heads)).filter_map(beyond).collect()
}

/// Uses and heads of a family as words.
pub fn words_of<W: Word>(offered: &[W]) -> Vec<String> {
    offered.iter().map(|word| word.word().to_owned()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Every figure of the tables can be read, and lies within its own range.
    #[test]
    fn every_assumed_figure_lies_within_its_range() {
        for family in FAMILIES {
            for figure in family.figures.iter().chain(family.iron).chain(family.aluminium) {
                let dimension = crate::document::kind_of(figure.field).unwrap().dimension().unwrap();
                let [low, have, high] =
                    [figure.low, figure.text, figure.high].map(|text| crate::quantity::parse(text, dimension).unwrap());
                assert!(low < high && (low..=high).contains(&have), "{} {}", family.title, figure.field);
            }
        }
    }

    #[test]
    fn a_use_that_is_not_offered_is_refused_by_name() {
        let from = Beginning {
            name: "x".into(),
            family: "diesel_six".into(),
            heads: None,
            used_for: Some("strip".into()),
            known: Vec::new(),
        };
        let refused = begin(&from, UnitSystem::Inch, &Stages::default()).unwrap_err();
        assert_eq!(refused.faults[0].field, "use");
        assert_eq!(refused.faults[0].needs, "one of tow, work, marine, street");
    }
}
