//! Charts for paper, as SVG in a page: curves over an axis, each with its band.

use plotters::prelude::*;

/// Pixels of a chart that two of stand beside each other, and of one by itself; the page shows them at less than half of that.
pub const HALF: (u32, u32) = (860, 520);
/// One by itself.
pub const WHOLE: (u32, u32) = (1720, 520);
const FONT: (&str, u32) = ("sans-serif", 26);
const GREY: RGBColor = RGBColor(213, 210, 195);

/// One curve.
pub struct Line {
    /// Its ink.
    pub ink: RGBColor,
    /// Its points in rising order of the first.
    pub points: Vec<(f64, f64)>,
    /// Half the width of the band around each point; none where it is empty.
    pub half: Vec<f64>,
}

/// Inks that differ in grey too.
pub const FIRST: RGBColor = RGBColor(12, 101, 110);
/// The other one.
pub const SECOND: RGBColor = RGBColor(192, 105, 38);

/// Curves over their axis, each axis with its name; `None` where there is nothing to draw.
pub fn chart(size: (u32, u32), (across, up): (&str, &str), lines: &[Line]) -> Option<String> {
    let all = || lines.iter().flat_map(around);
    let ends = |of: fn((f64, f64)) -> f64| {
        all().map(of).fold((f64::INFINITY, f64::NEG_INFINITY), |(least, most), own| (least.min(own), most.max(own)))
    };
    let ((left, right), (low, high)) = (ends(|own| own.0), ends(|own| own.1));
    if !(right > left && high > low) {
        return None;
    }
    let mut svg = String::new();
    draw((&mut svg, size), (across, up), lines, ((left, right), ((low.min(0.0)), high + 0.06 * (high - low)))).ok()?;
    Some(svg)
}

/// Its points, and the edges of its band.
fn around(line: &Line) -> impl Iterator<Item = (f64, f64)> + '_ {
    let edges = line.points.iter().zip(&line.half).flat_map(|((x, y), half)| [(*x, y - half), (*x, y + half)]);
    line.points.iter().copied().chain(edges)
}

type Ends = ((f64, f64), (f64, f64));

fn draw(
    (svg, size): (&mut String, (u32, u32)),
    (across, up): (&str, &str),
    lines: &[Line],
    ((left, right), (low, high)): Ends,
) -> Result<(), Box<dyn std::error::Error>> {
    let area = SVGBackend::with_string(svg, size).into_drawing_area();
    let mut chart = ChartBuilder::on(&area)
        .margin(12)
        .margin_right(40)
        .x_label_area_size(70)
        .y_label_area_size(110)
        .build_cartesian_2d(left..right, low..high)?;
    let round = |value: &f64| if high < 10.0 { format!("{value:.1}") } else { format!("{value:.0}") };
    chart
        .configure_mesh()
        .light_line_style(WHITE)
        .bold_line_style(GREY)
        .label_style(FONT)
        .axis_desc_style(FONT)
        .x_label_formatter(&|value| format!("{value:.0}"))
        .y_label_formatter(&round)
        .x_desc(across)
        .y_desc(up)
        .draw()?;
    for line in lines {
        let ink = line.ink;
        if line.half.len() == line.points.len() {
            let edge = |sign: f64| line.points.iter().zip(&line.half).map(move |((x, y), half)| (*x, y + sign * half));
            let around: Vec<(f64, f64)> = edge(1.0).chain(edge(-1.0).collect::<Vec<_>>().into_iter().rev()).collect();
            chart.draw_series(std::iter::once(Polygon::new(around, ink.mix(0.15))))?;
        }
        chart.draw_series(LineSeries::new(line.points.iter().copied(), ink.stroke_width(4)))?;
    }
    area.present()?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line(points: Vec<(f64, f64)>) -> Line {
        Line { ink: FIRST, half: vec![1.0; points.len()], points }
    }

    #[test]
    fn a_chart_names_its_axes_and_curves_and_stands_by_itself() {
        let svg =
            chart(HALF, ("rpm", "lbf ft"), &[line(vec![(2000.0, 300.0), (3000.0, 340.0), (4000.0, 320.0)])]).unwrap();
        for text in ["<svg", "rpm", "lbf ft", "<polyline", "<polygon"] {
            assert!(svg.contains(text), "{text}");
        }
        assert!(!svg.contains("http://") || svg.contains("www.w3.org"), "nothing is fetched");
    }

    #[test]
    fn nothing_is_drawn_of_nothing() {
        assert_eq!(chart(HALF, ("rpm", "lbf ft"), &[]), None);
        assert_eq!(chart(HALF, ("rpm", "lbf ft"), &[line(vec![(2000.0, 300.0)])]), None);
        assert_eq!(chart(HALF, ("rpm", "lbf ft"), &[line(vec![(2000.0, f64::NAN), (3000.0, f64::NAN)])]), None);
    }
}
