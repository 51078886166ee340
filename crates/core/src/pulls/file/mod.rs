//! Files of dynos: any names and any units, mapped by who knows them, split into runs. What looks wrong is asked, not guessed, and nothing
//! is thrown away.

mod headings;
mod holds;
mod runs;
mod table;

pub use holds::{Holds, Mapped};
pub use runs::{Run, Trace, runs};
pub use table::{Line, Table, number, read, with_unit};

/// What the columns hold by their headings; one speed, one torque and one power at most. Units that a heading does not name are empty.
pub fn guessed(table: &Table) -> Vec<Mapped> {
    let mut taken: Vec<Holds> = Vec::new();
    let column = |(name, unit): &(String, String)| {
        let mut holds = Holds::of_heading(name);
        // A heading that is only a unit says what it holds by that.
        for by_unit in [Holds::Torque, Holds::Power, Holds::Speed] {
            if holds == Holds::Nothing
                && (by_unit.unit(name).is_some() || (!unit.is_empty() && by_unit.unit(unit).is_some()))
            {
                holds = by_unit;
            }
        }
        if taken.contains(&holds) {
            holds = Holds::Nothing;
        }
        if holds != Holds::Nothing {
            taken.push(holds);
        }
        let named = holds
            .unit(unit)
            .or_else(|| holds.unit(name))
            .or_else(|| (holds == Holds::Speed).then(|| holds.unit("rpm"))?);
        let named = named.or_else(|| name.split_whitespace().find_map(|word| holds.unit(word)));
        Mapped { holds, unit: named.map_or_else(String::new, |unit| unit.symbol.to_owned()) }
    };
    table.heading.iter().map(column).collect()
}

/// What a heading is remembered by: its names and units without case.
pub fn signature(table: &Table) -> String {
    let column = |(name, unit): &(String, String)| format!("{}|{}", name.to_lowercase(), unit.to_lowercase());
    table.heading.iter().map(column).collect::<Vec<_>>().join("\u{1f}")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn columns_are_what_their_headings_say() {
        let table = read("Time (s),Engine Speed (rpm),Torque (ft-lb),Power (hp),Oil Temp (F),AFR\n0,2000,340,129.5,190,12.8\n1,2100,345,138,190,12.8\n").unwrap();
        let found: Vec<(Holds, String)> = guessed(&table).into_iter().map(|own| (own.holds, own.unit)).collect();
        assert_eq!(
            found,
            [
                (Holds::Nothing, ""),
                (Holds::Speed, "rpm"),
                (Holds::Torque, "lbf ft"),
                (Holds::Power, "hp"),
                (Holds::OilTemperature, "F"),
                (Holds::AirFuelRatio, "")
            ]
            .map(|(holds, unit)| (holds, unit.to_owned()))
        );
        assert!(signature(&table).contains("engine speed|rpm"));
        let two = read("rpm,N m\n2000,460\n2100,465\n").unwrap();
        assert_eq!(guessed(&two)[1], Mapped { holds: Holds::Torque, unit: "N m".to_owned() });
        let nameless = read("rpm,torque\n2000,460\n2100,465\n").unwrap();
        assert_eq!(guessed(&nameless)[1].unit, "", "a unit is asked, not guessed");
    }
}
