//! Every rule as a page, written from the rules themselves: nothing to keep in step by hand.

use crate::limits::RULES;
use crate::report::{Place, Sense};

/// The page in Markdown, rules in the order of the card, grouped by the step they belong to.
pub fn rules_page() -> String {
    let mut page = String::from(
        "# Every rule\n\nWritten by `upper-lobe schema --rules` from `crates/core/src/limits`; do not edit it by hand.\n\
         Figures are common practice without a source unless a rule says otherwise; a shop may set its own.\n",
    );
    for place in Place::ALL {
        let own: Vec<_> = RULES.iter().filter(|rule| rule.place == place).collect();
        if own.is_empty() {
            continue;
        }
        page.push_str(&format!("\n## {}\n\n", title(place)));
        for rule in own {
            let sense = match rule.sense {
                Sense::AtLeast => "at least",
                Sense::AtMost => "at most",
                Sense::Within => "within",
            };
            let sides = if rule.sided { ", each valve" } else { "" };
            let advice = if rule.advice { ", advice" } else { "" };
            let gas = if rule.gas { ", with the gas where it is computed" } else { "" };
            page.push_str(&format!(
                "- **{}** (`{}`, {sense}{sides}{advice}{gas}): {}.\n",
                capital(rule.title),
                rule.id,
                rule.formula
            ));
        }
    }
    page
}

fn title(place: Place) -> String {
    capital(&format!("{place:?}"))
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}
