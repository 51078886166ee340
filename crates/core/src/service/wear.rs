//! What wears, what renews it, what it may come to, and how often it is looked at: **common practice, no source**, apart from what the
//! rules and the springs' own interval say. The maker's own instruction stands above all of it.

use super::used::CountedIn;
use crate::quantity::{Dimension, INCH, POUND_FORCE};
use crate::words::{ServiceEvent, ServicePart};

/// Something that is read valve by valve and wears.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wear {
    /// Spring load on the seat, N.
    SeatLoad,
    /// Lash at the valve, m.
    Lash,
    /// Stem in its guide, m.
    GuidePlay,
    /// Lift of the lobe, m.
    LobeLift,
}

impl Wear {
    /// Every one, in the order they are told.
    pub const ALL: [Self; 4] = [Self::SeatLoad, Self::Lash, Self::GuidePlay, Self::LobeLift];

    /// Its key in the document.
    pub const fn key(self) -> &'static str {
        match self {
            Self::SeatLoad => "seat_load",
            Self::Lash => "lash",
            Self::GuidePlay => "guide_play",
            Self::LobeLift => "lobe_lift",
        }
    }

    /// In words.
    pub const fn title(self) -> &'static str {
        match self {
            Self::SeatLoad => "Seat load",
            Self::Lash => "Lash",
            Self::GuidePlay => "Guide play",
            Self::LobeLift => "Lobe lift",
        }
    }

    /// What it is measured in.
    pub const fn dimension(self) -> Dimension {
        match self {
            Self::SeatLoad => Dimension::Force,
            _ => Dimension::Length,
        }
    }

    /// What one reading of it repeats to, standard deviation, SI; worth [`Self::WORTH`] degrees of freedom.
    pub const fn repeats(self) -> f64 {
        match self {
            Self::SeatLoad => 2.0 * POUND_FORCE,
            Self::Lash | Self::LobeLift => 0.000_7 * INCH,
            Self::GuidePlay => 0.000_2 * INCH,
        }
    }

    /// The least difference of two readings of a valve that is no chance, SI: four standard deviations of such a difference, which one
    /// of thirty thousand exceeds the one way.
    pub fn no_chance(self) -> f64 {
        4.0 * std::f64::consts::SQRT_2 * self.repeats()
    }

    /// Which way it cannot go by wear, and what is said of that; nothing of lash, which goes either way.
    pub const fn cannot(self) -> Option<(f64, &'static str)> {
        match self {
            Self::SeatLoad => Some((1.0, "springs do not gain load")),
            Self::GuidePlay => Some((-1.0, "guides do not close")),
            Self::LobeLift => Some((1.0, "lobes do not grow")),
            Self::Lash => None,
        }
    }

    /// How much what readings usually repeat to counts beside what these repeat to.
    pub const WORTH: f64 = 4.0;

    /// Whether an entry renews it.
    pub fn is_renewed(self, event: ServiceEvent, changed: &[ServicePart]) -> bool {
        use ServicePart::{Camshaft, Guides, HeadGasket, Lifters, Pushrods, Rockers, Seats, Springs, Valves};
        let by: &[ServicePart] = match self {
            Self::SeatLoad => &[Springs, Seats, Valves],
            Self::Lash => &[Valves, Seats, Rockers, Pushrods, Lifters, Camshaft, HeadGasket],
            Self::GuidePlay => &[Guides, Valves],
            Self::LobeLift => &[Camshaft],
        };
        (self == Self::Lash && event == ServiceEvent::LashSet) || changed.iter().any(|own| by.contains(own))
    }
}

/// Share of its first load a spring may lose, and how far lash may move and a lobe lose lift, m.
pub const LOAD_LOST: f64 = 0.10;
/// See [`LOAD_LOST`].
pub const LASH_MOVES: f64 = 0.004 * INCH;
/// See [`LOAD_LOST`].
pub const LIFT_LOST: f64 = 0.005 * INCH;

/// Something that is done again and again.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Due {
    /// Oil and filter.
    Oil,
    /// Lash of solid lifters.
    Lash,
    /// Load of the springs, and their look.
    Springs,
    /// Lobes and the lifters on them.
    Lobes,
    /// Play of the guides.
    Guides,
}

impl Due {
    /// Every one.
    pub const ALL: [Self; 5] = [Self::Oil, Self::Lash, Self::Springs, Self::Lobes, Self::Guides];

    /// What is done.
    pub const fn title(self) -> &'static str {
        match self {
            Self::Oil => "Change oil and filter",
            Self::Lash => "Check lash, cold",
            Self::Springs => "Check spring loads on the seat",
            Self::Lobes => "Measure lobe lift, look at lifters",
            Self::Guides => "Measure guide play",
        }
    }

    /// What is read at it; nothing of oil.
    pub const fn wear(self) -> Option<Wear> {
        match self {
            Self::Oil => None,
            Self::Lash => Some(Wear::Lash),
            Self::Springs => Some(Wear::SeatLoad),
            Self::Lobes => Some(Wear::LobeLift),
            Self::Guides => Some(Wear::GuidePlay),
        }
    }

    /// How long between two, in that unit; hours of a raced engine are others than of one that works.
    pub const fn interval(self, of: CountedIn, is_raced: bool, is_flat: bool) -> f64 {
        match (self, of) {
            (Self::Oil, CountedIn::Miles) => 5000.0,
            (Self::Oil, CountedIn::Passes) => 20.0,
            (Self::Oil, CountedIn::Hours) => {
                if is_raced {
                    10.0
                } else {
                    100.0
                }
            }
            (Self::Lash, CountedIn::Miles) => 6000.0,
            (Self::Lash, CountedIn::Passes) => 10.0,
            (Self::Lash, CountedIn::Hours) => {
                if is_raced {
                    5.0
                } else {
                    250.0
                }
            }
            (Self::Springs, CountedIn::Miles) => 30_000.0,
            (Self::Springs, CountedIn::Passes) => 25.0,
            (Self::Springs, CountedIn::Hours) => {
                if is_raced {
                    12.0
                } else {
                    1000.0
                }
            }
            (Self::Lobes, CountedIn::Miles) => {
                if is_flat {
                    15_000.0
                } else {
                    40_000.0
                }
            }
            (Self::Lobes, CountedIn::Passes) => {
                if is_flat {
                    40.0
                } else {
                    100.0
                }
            }
            (Self::Lobes, CountedIn::Hours) => match (is_raced, is_flat) {
                (true, true) => 12.0,
                (true, false) => 30.0,
                (false, _) => 1500.0,
            },
            (Self::Guides, CountedIn::Miles) => 40_000.0,
            (Self::Guides, CountedIn::Passes) => 100.0,
            (Self::Guides, CountedIn::Hours) => {
                if is_raced {
                    30.0
                } else {
                    2000.0
                }
            }
        }
    }

    /// How soon after it was put together or set it is first looked at; as later ones where nothing settles.
    pub const fn first(self, of: CountedIn) -> Option<f64> {
        match (self, of) {
            (Self::Lash | Self::Oil, CountedIn::Miles) => Some(500.0),
            (Self::Lash | Self::Oil, CountedIn::Hours) => Some(2.0),
            (Self::Lash | Self::Oil, CountedIn::Passes) => Some(3.0),
            _ => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_renewed_is_what_was_in_hand() {
        let renewed = |event, changed: &[ServicePart]| Wear::ALL.map(|own| own.is_renewed(event, changed));
        assert_eq!(renewed(ServiceEvent::LashSet, &[]), [false, true, false, false]);
        assert_eq!(renewed(ServiceEvent::Parts, &[ServicePart::Springs]), [true, false, false, false]);
        assert_eq!(renewed(ServiceEvent::Parts, &[ServicePart::Valves]), [true, true, true, false]);
        assert_eq!(renewed(ServiceEvent::Parts, &[ServicePart::Camshaft]), [false, true, false, true]);
        assert_eq!(renewed(ServiceEvent::Inspection, &[]), [false; 4]);
    }
}
