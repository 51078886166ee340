//! The report for an owner as a page by itself, to be printed or kept: what the core's report says, laid out.

use crate::order_sheet::{STYLE, cam_table};
use crate::owner_charts::{FIRST, HALF, Line, SECOND, WHOLE, chart};
use maud::{DOCTYPE, Markup, PreEscaped, html};
use upper_lobe_core::analysis::{
    Dimension, LimitReport, OrderFact, OwnerReport, Shown, TorqueCurve, UnitSystem, Verdict, scale,
};

/// The page.
pub fn page(report: &OwnerReport, system: UnitSystem) -> String {
    let title = format!("{}, {}", report.name, report.candidate);
    let page: Markup = html! {
        (DOCTYPE)
        html lang="en" {
            head {
                meta charset="utf-8";
                meta name="viewport" content="width=device-width, initial-scale=1";
                title { (title) }
                style { (PreEscaped(STYLE)) (PreEscaped(OWN_STYLE)) }
            }
            body {
                h1 { (title) }
                @if !report.day.is_empty() { p { "Report for the owner, " (report.day) } }
                @for own in &report.says { p { (own.text(system)) } }
                h2 { "What was asked, and what it is" }
                (facts(&report.about, system))
                (torque(report, system))
                h2 { "The cam" }
                (lift(report, system))
                (cam_table(&report.card, system))
                (facts(&report.card.facts, system))
                h2 { "Limits" }
                (margins(&report.margins, system))
                (service(report, system))
                h2 { "What became of it" }
                table {
                    thead { tr { @for title in ["Day", "What", "What came of it", "By", "Revision"] { th scope="col" { (title) } } } }
                    tbody { @for own in &report.history.events { tr {
                        th scope="row" { (own.day) } td { (own.title) } td { (own.says.text(system)) } td { (own.by) }
                        td { @if let Some(revision) = own.revision { (revision) } @else { "not saved" } }
                    } } }
                }
                h2 { "Mind" }
                ul { @for own in &report.cautions { li { (own) } } }
            }
        }
    };
    page.into_string()
}

/// Facts beside each other: paper is short.
fn facts(facts: &[OrderFact], system: UnitSystem) -> Markup {
    html! {
        dl { @for own in facts {
            div { dt { (own.label) } dd { (own.value.text(system)) @if own.assumed { " (assumed)" } } }
        } }
    }
}

fn torque(report: &OwnerReport, system: UnitSystem) -> Markup {
    let torque = &report.torque;
    let scales = [scale(Dimension::Torque, system), scale(Dimension::Power, system)];
    // The report has newton metres and kilowatts.
    let (newton_metres, kilowatts) = (scales[0].factor, scales[1].factor * 1e-3);
    let curves = [(SECOND, torque.predicted.as_ref()), (FIRST, torque.measured.as_ref())];
    let lines = |of: &dyn Fn(&TorqueCurve, usize) -> f64, factor: f64, banded: bool| -> Vec<Line> {
        let own = curves.iter().filter_map(|(ink, curve)| Some((*ink, (*curve)?)));
        own.map(|(ink, curve)| Line {
            ink,
            points: (0..curve.speed_rpm.len()).map(|i| (curve.speed_rpm[i], of(curve, i) / factor)).collect(),
            half: if banded { curve.doubt_nm.iter().map(|own| own / factor).collect() } else { Vec::new() },
        })
        .collect()
    };
    let torques = chart(HALF, ("rpm", scales[0].unit), &lines(&|own, i| own.torque_nm[i], newton_metres, true));
    let powers = chart(HALF, ("rpm", scales[1].unit), &lines(&|own, i| own.power_kw[i], kilowatts, false));
    html! {
        h2 { "Torque and power" }
        @if torques.is_some() {
            figure {
                div class="pair" { @for svg in [torques, powers].into_iter().flatten() { div { (PreEscaped(svg)) } } }
                figcaption {
                    @if torque.measured.is_some() { b style=(ink(FIRST)) { "measured" } " " }
                    @if torque.predicted.is_some() { b style=(ink(SECOND)) { "predicted" } } ", each with its band"
                }
            }
        }
        p { "Predicted: " (torque.trust) "." }
        @if !torque.believed.is_empty() {
            p { "On the dyno, against " (torque.against) ":" }
            ul { @for own in &torque.believed { li { (own.text(system)) } } }
        }
    }
}

fn lift(report: &OwnerReport, system: UnitSystem) -> Markup {
    let Some(strip) = &report.strip else { return html! {} };
    let length = scale(Dimension::Length, system);
    let millimetres = length.factor * 1e3;
    let line = |ink, rigid: &[f64], running: &Option<Vec<f64>>| {
        let lift = running.as_deref().unwrap_or(rigid);
        let points = strip.crank_deg.iter().zip(lift).step_by(4).map(|(deg, lift)| (*deg, lift / millimetres));
        Line { ink, points: points.collect(), half: Vec::new() }
    };
    let lines = [
        line(SECOND, &strip.exhaust_lift_mm, &strip.exhaust_running_mm),
        line(FIRST, &strip.intake_lift_mm, &strip.intake_running_mm),
    ];
    let svg = chart(WHOLE, ("crank degrees after firing top dead centre", &format!("lift, {}", length.unit)), &lines);
    html! {
        @if let Some(svg) = svg {
            figure {
                (PreEscaped(svg))
                figcaption { b style=(ink(FIRST)) { "intake" } " " b style=(ink(SECOND)) { "exhaust" } ", turning slowly" }
            }
        }
    }
}

fn ink(own: plotters::style::RGBColor) -> String {
    format!("color:rgb({},{},{})", own.0, own.1, own.2)
}

fn margins(margins: &[LimitReport], system: UnitSystem) -> Markup {
    html! {
        table {
            thead { tr { @for title in ["Limit", "Verdict", "Needs", "Has", "Left"] { th scope="col" { (title) } } } }
            tbody { @for own in margins { tr {
                th scope="row" { (own.title) }
                td class=[(own.verdict == Verdict::Fails).then_some("fails")] { (own.verdict.word()) }
                @let text = |of: fn(&upper_lobe_core::analysis::LimitShown) -> &Shown| own.shown.as_ref().map_or("", |shown| of(shown).text(system));
                td { (text(|own| &own.need)) } td { (text(|own| &own.have)) } td { (text(|own| &own.margin)) }
            } } }
        }
    }
}

fn service(report: &OwnerReport, system: UnitSystem) -> Markup {
    let service = &report.service;
    html! {
        h2 { "On the road" }
        @if !service.next.is_empty() {
            table {
                thead { tr { @for title in ["Due", "At", "About", "Why then"] { th scope="col" { (title) } } } }
                tbody { @for own in &service.next { tr {
                    th scope="row" { (own.what) @if own.overdue { " (overdue)" } }
                    td { (own.at_shown.text(system)) } td { (own.on.as_deref().unwrap_or_default()) } td { (own.why.text(system)) }
                } } }
            }
        }
        @for own in &service.failures { p { (own.says.text(system)) } }
    }
}

const OWN_STYLE: &str = "figure{margin:0 0 4mm}svg{width:100%;height:auto;display:block}.pair{display:grid;grid-template-columns:1fr 1fr;gap:6mm}figcaption{font-size:9pt}\
dl{display:grid;grid-template-columns:repeat(auto-fill,minmax(52mm,1fr));gap:0 5mm;margin:0 0 5mm}\
dl div{display:flex;justify-content:space-between;gap:3mm;border-bottom:.2mm solid #999;padding:1mm 0;break-inside:avoid}dt{font-weight:bold}dd{margin:0;text-align:right}.fails{font-weight:bold;text-decoration:underline}\
h2{break-after:avoid}figure,ul{break-inside:avoid}";
