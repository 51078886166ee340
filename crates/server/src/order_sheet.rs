//! An order as a workbook and as a page: what the core's order card says, laid out.

use maud::{DOCTYPE, Markup, html};
use rust_xlsxwriter::{Format, Workbook, Worksheet, XlsxError};
use upper_lobe_core::analysis::{ORDER_COLUMNS, OrderCard, OrderFact, Side, UnitSystem, order_cells, order_of_what};

/// The order as a workbook of three sheets: cam, parts with their sums, and what to do. `revision` says which one it is of, in words;
/// nothing where nobody knows.
///
/// # Errors
/// The writer's own.
pub fn workbook(card: &OrderCard, revision: &str, system: UnitSystem) -> Result<Vec<u8>, XlsxError> {
    let bold = Format::new().set_bold();
    let mut book = Workbook::new();
    let cam = book.add_worksheet().set_name("Cam")?;
    headed(cam, &ORDER_COLUMNS, &bold)?;
    let facts = card.facts.iter().map(|fact| vec![fact.label.as_str(), "", fact.value.text(system)]);
    let lines = card.lines.iter().map(|line| order_cells(line, system).to_vec());
    let of_what = order_of_what(card, revision).map(|(label, text)| vec![label, "", text]);
    let missing = card.missing.iter().map(|own| vec![own.label.as_str(), "", "to be given"]);
    for (row, texts) in (1..).zip(of_what.chain(lines).chain(facts).chain(missing)) {
        write(cam, row, &texts)?;
    }
    cam.autofit();
    let parts = book.add_worksheet().set_name("Parts")?;
    headed(parts, &["kind", "part", "state", "takes", "price", "note"], &bold)?;
    let mut row = 1;
    for part in &card.parts {
        let lead = part.lead_time.as_deref().unwrap_or_default();
        write(parts, row, &[part.kind.as_str(), &part.name, part.state.words(), lead])?;
        if let Some(money) = part.money {
            parts.write(row, 4, money)?;
        }
        parts.write(row, 5, part.note.as_deref().unwrap_or_default())?;
        row += 1;
    }
    for (label, amount) in sums(card, system) {
        row += 1;
        parts.write_with_format(row, 0, label, &bold)?;
        parts.write(row, 4, amount)?;
    }
    parts.autofit();
    let lists = book.add_worksheet().set_name("To do")?;
    for (row, (title, text)) in (0..).zip(to_do(card, system)) {
        lists.write_with_format(row, 0, title, &bold)?.write(row, 1, text)?;
    }
    lists.autofit();
    book.save_to_buffer()
}

fn headed(sheet: &mut Worksheet, columns: &[&str], bold: &Format) -> Result<(), XlsxError> {
    for (column, title) in (0..).zip(columns) {
        sheet.write_with_format(0, column, *title, bold)?;
    }
    sheet.set_freeze_panes(1, 0)?;
    Ok(())
}

fn write(sheet: &mut Worksheet, row: u32, texts: &[impl AsRef<str>]) -> Result<(), XlsxError> {
    for (column, text) in (0..).zip(texts).filter(|(_, text)| !text.as_ref().is_empty()) {
        sheet.write(row, column, text.as_ref())?;
    }
    Ok(())
}

/// The sums of the bill in words.
fn sums(card: &OrderCard, system: UnitSystem) -> Vec<(&'static str, String)> {
    let Some(bill) = &card.bill else { return Vec::new() };
    let mut sums = vec![
        ("Together", bill.total.text(system).to_owned()),
        ("Ordered or here", bill.spent.text(system).to_owned()),
        ("Still to buy", bill.left.text(system).to_owned()),
    ];
    sums.extend(bill.budget.as_ref().map(|budget| ("Budget", budget.text(system).to_owned())));
    sums.extend(bill.over.as_ref().map(|over| ("Over it by", over.text(system).to_owned())));
    if bill.unpriced > 0 {
        sums.push(("Without a price", format!("{} parts", bill.unpriced)));
    }
    sums
}

/// Everything to do and to mind, each with its heading.
fn to_do(card: &OrderCard, system: UnitSystem) -> Vec<(&'static str, String)> {
    let never = card.conflicts.iter().map(|own| {
        (
            "Never together",
            format!("{}: {}, has to be {}; {}", own.title, own.have.text(system), own.need.text(system), own.why),
        )
    });
    let drags = card.drags_along.iter().flatten().map(|own| ("Drags along", format!("{}: {}", own.what, own.why)));
    let work = card
        .machining
        .iter()
        .map(|own| ("Machining", format!("{}: preload by {}; {}", own.what, own.preload.text(system), own.then)));
    let when = card.checklist.iter().map(|text| ("When it comes", text.clone()));
    let mind = card.cautions.iter().map(|text| ("Mind", text.clone()));
    never.chain(drags).chain(work).chain(when).chain(mind).collect()
}

/// The order as a page by itself, to be printed or sent.
pub fn page(card: &OrderCard, system: UnitSystem) -> String {
    let title = format!("Camshaft order: {}, {}", card.build, card.candidate);
    let page: Markup = html! {
        (DOCTYPE)
        html lang="en" {
            head {
                meta charset="utf-8";
                title { (title) }
                style { (maud::PreEscaped(STYLE)) }
            }
            body {
                h1 { (title) }
                (cam_table(card, system))
                table { tbody {
                    (fact_rows(&card.facts, system))
                    @for missing in &card.missing {
                        tr { th scope="row" { (missing.label) } td { "to be given: ____________" } }
                    }
                } }
                @if !card.parts.is_empty() {
                    h2 { "Parts" }
                    table { tbody {
                        @for part in &card.parts {
                            tr {
                                th scope="row" { (part.kind) } td { (part.name) } td { (part.state.words()) }
                                td { (part.lead_time.as_deref().unwrap_or_default()) }
                                td { (part.price.as_ref().map_or("", |price| price.text(system))) }
                            }
                        }
                        @for (label, amount) in sums(card, system) { tr { th scope="row" colspan="4" { (label) } td { (amount) } } }
                    } }
                }
                h2 { "To do" }
                table { tbody {
                    @for (heading, text) in to_do(card, system) { tr { th scope="row" { (heading) } td { (text) } } }
                } }
            }
        }
    };
    page.into_string()
}

/// Both lobes line by line.
pub fn cam_table(card: &OrderCard, system: UnitSystem) -> Markup {
    html! {
        table {
            thead { tr { @for column in ORDER_COLUMNS { th scope="col" { (column) } } } }
            tbody {
                @for side in Side::BOTH {
                    @for line in card.lines.iter().filter(|line| line.side == side) {
                        tr { @for cell in order_cells(line, system) { td { (cell) } } }
                    }
                }
            }
        }
    }
}

/// Facts, a row each; what is only assumed says so.
fn fact_rows(facts: &[OrderFact], system: UnitSystem) -> Markup {
    html! {
        @for fact in facts {
            tr { th scope="row" { (fact.label) } td { (fact.value.text(system)) @if fact.assumed { " (assumed)" } } }
        }
    }
}

/// How pages for paper look.
pub const STYLE: &str = "body{font:11pt/1.35 sans-serif;margin:14mm;color:#111}h1{font-size:15pt}h2{font-size:12pt}\
table{border-collapse:collapse;margin:0 0 5mm}th,td{text-align:left;padding:1mm 3mm 1mm 0;border-bottom:.2mm solid #999;vertical-align:top}\
tr{break-inside:avoid}@page{margin:12mm}";
