//! A dyno's file as columns of cells: any separator, lines before the heading, units below it, headings again between two runs.

use csv::{ReaderBuilder, Trim};

/// Most bytes and lines of a file.
pub const MOST_BYTES: usize = 4 * 1024 * 1024;
const MOST_LINES: usize = 60_000;
/// Lines that are looked at to find what parts columns.
const LOOKED_AT: usize = 200;

/// Name and unit of every column.
pub type Heading = Vec<(String, String)>;

/// A file read as columns.
#[derive(Debug, Clone, PartialEq)]
pub struct Table {
    /// The first heading; made up where the file has none.
    pub heading: Heading,
    /// Headings between two runs that say otherwise, each with the number of the first line of figures under it.
    pub further: Vec<(usize, Heading)>,
    /// Whether the file has one.
    pub has_heading: bool,
    /// Lines of figures, each as wide as the heading.
    pub lines: Vec<Line>,
    /// What stands before the heading, line by line.
    pub before: Vec<String>,
}

/// A line of figures.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// Its number in the file, from one.
    pub number: usize,
    /// Cells as they stand, decimal commas as points.
    pub cells: Vec<String>,
    /// Whether something that is no figure stands between it and the line of figures before.
    pub after_break: bool,
}

impl Line {
    /// The number of a cell.
    pub fn number_at(&self, column: usize) -> Option<f64> {
        number(self.cells.get(column)?)
    }
}

/// The number at the head of a cell; a unit may follow.
pub fn number(cell: &str) -> Option<f64> {
    let end =
        cell.find(|c: char| !(c.is_ascii_digit() || matches!(c, '.' | '-' | '+' | 'e' | 'E'))).unwrap_or(cell.len());
    let digits = cell[..end].trim_end_matches(['e', 'E']);
    digits.parse::<f64>().ok().filter(|own| own.is_finite())
}

/// Reads a file.
///
/// # Errors
/// In words: it is too long, or has no two columns of figures.
pub fn read(text: &str) -> Result<Table, String> {
    if text.len() > MOST_BYTES {
        return Err(format!("the file has {} bytes; at most {MOST_BYTES} are read", text.len()));
    }
    let text = text.trim_start_matches('\u{feff}');
    let mark = mark_of(text);
    let reader = ReaderBuilder::new()
        .delimiter(mark)
        .flexible(true)
        .has_headers(false)
        .trim(Trim::All)
        .from_reader(text.as_bytes());
    let mut records: Vec<(usize, Vec<String>)> = Vec::new();
    for record in reader.into_records() {
        let record = record.map_err(|error| format!("the file is no table: {error}"))?;
        let number = record.position().map_or(0, |at| at.line() as usize);
        if records.len() > MOST_LINES {
            return Err(format!("the file has more than {MOST_LINES} lines"));
        }
        let cells: Vec<String> = record.iter().map(|cell| plain(cell, mark)).collect();
        if cells.iter().any(|cell| !cell.is_empty()) {
            records.push((number, cells));
        }
    }
    let is_figures = |cells: &Vec<String>| cells.iter().filter(|cell| number(cell).is_some()).count() >= 2;
    let first = records
        .windows(2)
        .position(|pair| is_figures(&pair[0].1) && is_figures(&pair[1].1) && is_wide(&pair[0].1, &pair[1].1));
    let mut first = first.ok_or("the file has no two lines with figures of two columns or more")?;
    let width = records[first].1.len();
    // A heading of speeds looks like figures itself.
    first += usize::from(is_heading_of_figures(&records, first, width));
    let (heading, has_heading, above) = heading(&records[..first], width);
    let before = records[..above].iter().map(|(_, cells)| cells.join(" ").trim().to_owned()).collect();
    let (mut lines, mut further, mut between) = (Vec::new(), Vec::new(), Vec::new());
    for (number, mut cells) in records.drain(first..) {
        if is_figures(&cells) && cells.len() >= 2 {
            cells.resize(width, String::new());
            let after_break = !between.is_empty();
            if after_break {
                let stands = further.last().map_or(&heading, |(_, own)| own);
                further
                    .extend(further_heading(&between, &heading).filter(|own| own != stands).map(|own| (number, own)));
                between.clear();
            }
            lines.push(Line { number, cells, after_break });
        } else {
            between.push((number, cells));
        }
    }
    Ok(Table { heading, further, has_heading, lines, before })
}

/// What stands between two runs as a heading: it names one of the columns that the first does.
fn further_heading(between: &[(usize, Vec<String>)], first: &Heading) -> Option<Heading> {
    let (own, is_one, _) = heading(between, first.len());
    let is_like = own.iter().zip(first).any(|(own, first)| own.0.eq_ignore_ascii_case(&first.0));
    (is_one && is_like).then_some(own)
}

/// Whether two lines have about as many columns.
fn is_wide(one: &[String], other: &[String]) -> bool {
    one.len().abs_diff(other.len()) <= 1
}

/// What stands in a cell that has no figure to show.
const NOTHING: [&str; 6] = ["n/a", "na", "nan", "null", "none", "#n/a"];

/// Whether the first line with figures names columns, as in `crank deg, 3000 rpm, 5200 rpm`: a word above a figure. Below another
/// heading only where it stands in the first column: a sensor that warms up writes words too.
fn is_heading_of_figures(records: &[(usize, Vec<String>)], first: usize, width: usize) -> bool {
    let is_word = |cell: &str| cell.starts_with(char::is_alphabetic) && !NOTHING.contains(&&*cell.to_lowercase());
    let (own, below) = (&records[first].1, &records[first + 1].1);
    let mut above_figures = own.iter().zip(below).map(|(own, below)| is_word(own) && number(below).is_some());
    let has_heading = first.checked_sub(1).is_some_and(|at| is_name(&records[at].1, width));
    if has_heading { above_figures.next() == Some(true) } else { above_figures.any(|own| own) }
}

/// Whether a line has words and about as many columns as the figures below.
fn is_name(cells: &[String], width: usize) -> bool {
    cells.len().abs_diff(width) <= 1 && cells.iter().any(|cell| cell.chars().any(char::is_alphabetic))
}

/// Names and units, whether the file gives them, and where the lines before them end.
fn heading(above: &[(usize, Vec<String>)], width: usize) -> (Heading, bool, usize) {
    let made_up = || (1..=width).map(|column| (format!("column {column}"), String::new())).collect();
    let Some(last) = above.last().filter(|(_, cells)| is_name(cells, width)) else {
        return (made_up(), false, above.len());
    };
    let names =
        above.len().checked_sub(2).map(|at| &above[at].1).filter(|cells| is_name(cells, width) && is_units(&last.1));
    let at = |cells: &[String], column: usize| cells.get(column).cloned().unwrap_or_default();
    let split = |column: usize| match names {
        Some(names) => (at(names, column), bare(&at(&last.1, column))),
        None => with_unit(&at(&last.1, column)),
    };
    ((0..width).map(split).collect(), true, above.len() - 1 - usize::from(names.is_some()))
}

/// Whether a line below a heading holds units: all cells are short.
fn is_units(cells: &[String]) -> bool {
    cells.iter().all(|cell| cell.chars().count() <= 8)
}

fn bare(unit: &str) -> String {
    unit.trim_matches(['(', ')', '[', ']', ' ']).to_owned()
}

/// A heading and the unit in brackets, or behind a comma or a stroke, at its end.
pub fn with_unit(cell: &str) -> (String, String) {
    for (open, close) in [('(', ')'), ('[', ']')] {
        if let Some((name, rest)) = cell.rsplit_once(open) {
            return (name.trim().to_owned(), rest.trim_end_matches(close).trim().to_owned());
        }
    }
    match cell.rsplit_once([',', '_']).filter(|(_, unit)| unit.trim().chars().count() <= 6) {
        Some((name, unit)) => (name.trim().to_owned(), unit.trim().to_owned()),
        None => (cell.to_owned(), String::new()),
    }
}

/// The mark that the most lines have as often as each other.
fn mark_of(text: &str) -> u8 {
    let lines: Vec<&str> = text.lines().filter(|line| !line.trim().is_empty()).take(LOOKED_AT).collect();
    let regular = |mark: u8| {
        let counts: Vec<usize> = lines.iter().map(|line| line.bytes().filter(|byte| *byte == mark).count()).collect();
        let mut sorted: Vec<usize> = counts.iter().copied().filter(|count| *count > 0).collect();
        sorted.sort_unstable();
        let usual = sorted.get(sorted.len() / 2).copied().unwrap_or(0);
        counts.iter().filter(|count| **count == usual && usual > 0).count()
    };
    // In this order where they are alike: a comma may be a decimal one, a blank may be anything.
    let marks = [b'\t', b';', b',', b' '];
    marks.into_iter().rev().max_by_key(|mark| regular(*mark) * if *mark == b' ' { 1 } else { 2 }).unwrap_or(b',')
}

/// A cell with a decimal comma as a point, and marks of thousands taken out where the comma parts columns.
fn plain(cell: &str, mark: u8) -> String {
    let cell = cell.trim().trim_matches('"');
    let commas = cell.matches(',').count();
    if commas == 1 && mark != b',' && !cell.contains('.') && cell.starts_with(|c: char| c.is_ascii_digit() || c == '-')
    {
        return cell.replace(',', ".");
    }
    let groups = |text: &str| {
        let mut parts = text.split('.').next().unwrap_or_default().split(',');
        parts.next().is_some_and(|first| (1..=3).contains(&first.len())) && parts.all(|part| part.len() == 3)
    };
    if commas > 0 && number(&cell.replace(',', "")).is_some() && groups(cell) {
        return cell.replace(',', "");
    }
    cell.to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn files_come_as_dynos_write_them() {
        for text in [
            "rpm,torque (lbf ft)\n2000,341.5\n2100,344\n",
            "Shop,day one\n\nrpm;torque (lbf ft)\n2000;341,5\n2100;344\n",
            "rpm\ttorque\n \tlbf ft\n2000\t341.5\n2100\t344\n",
            "\u{feff}\"rpm\",\"torque (lbf ft)\"\r\n\"2,000\",\"341.5\"\r\n\"2,100\",\"344\"\r\n",
            "rpm torque(lbf_ft)\n2000 341.5\n2100 344\n",
        ] {
            let own = read(text).unwrap();
            assert_eq!(own.lines[0].number_at(0), Some(2000.0), "{text:?} {own:?}");
            assert_eq!(own.lines[0].number_at(1), Some(341.5), "{text:?}");
            assert!(own.has_heading && own.heading[1].0.starts_with("torque"), "{own:?}");
        }
        let bare = read("2000,341.5\n2100,344\n").unwrap();
        assert_eq!((bare.has_heading, bare.heading[1].0.as_str()), (false, "column 2"));
    }

    #[test]
    fn a_heading_of_speeds_is_told_from_figures() {
        for (text, name) in [
            ("crank deg,3000 rpm (mm),5200 rpm (mm)\n0,.1,.2\n2,.3,.4\n", "3000 rpm"),
            ("On the rig, day one\ncam_deg 3000 5200\n0 .1 .2\n2 .3 .4\n", "3000"),
            ("rig,run,one\nangle;3000;5200\n0;.1;.2\n2;.3;.4\n", "3000"),
        ] {
            let own = read(text).unwrap();
            assert_eq!((own.heading[1].0.as_str(), own.lines.len()), (name, 2), "{text:?} {own:?}");
        }
        for text in [
            "rpm,torque,lambda\n2000,341.5,warming\n2100,344,.87\n",
            "2000,341.5,n/a\n2100,344,.87\n",
            "2000,341.5,ok\n2100,344,ok\n",
            "rpm,torque\n2e3,341.5\n2.1e3,344\n",
        ] {
            let own = read(text).unwrap();
            assert_eq!((own.lines.len(), own.lines[0].number_at(0)), (2, Some(2000.0)), "{text:?} {own:?}");
        }
    }

    #[test]
    fn a_heading_between_two_runs_is_a_break() {
        let own = read("rpm,tq\n2000,300\n2100,310\nrpm,tq\n2000,301\n2100,311\n").unwrap();
        let breaks: Vec<bool> = own.lines.iter().map(|line| line.after_break).collect();
        assert_eq!(breaks, [false, false, true, false]);
    }

    #[test]
    fn what_is_no_table_says_so() {
        for text in ["", "hello", "1\n2\n3", "rpm,tq\n", "\u{0}\u{1}\u{2}"] {
            assert!(read(text).is_err(), "{text:?}");
        }
        assert!(read(&"1,2\n".repeat(70_000)).unwrap_err().contains("lines"));
    }
}
