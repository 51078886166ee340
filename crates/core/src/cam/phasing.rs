//! Events and card numbers are the same cam: four events at a checking height, or two durations
//! with separation and centreline.
//!
//! duration = open + 180 + close; intake centreline = duration/2 - open; exhaust centreline =
//! duration/2 - close; separation = mean of the centrelines; advance = separation - intake
//! centreline; overlap = intake opening + exhaust closing (common practice, no source).
//!
//! Centrelines are those of the .050 events. An asymmetric lobe has its full lift elsewhere; the
//! difference is reported as the centre of lift.

/// Four events at one checking height, crank degrees; an opening after dead centre is negative.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Events {
    /// Intake opening before top dead centre.
    pub intake_opens_btdc: f64,
    /// Intake closing after bottom dead centre.
    pub intake_closes_abdc: f64,
    /// Exhaust opening before bottom dead centre.
    pub exhaust_opens_bbdc: f64,
    /// Exhaust closing after top dead centre.
    pub exhaust_closes_atdc: f64,
}

/// Where both lobes stand on the crank, crank degrees.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Phasing {
    /// Centre of the intake events after top dead centre.
    pub intake_centreline: f64,
    /// Centre of the exhaust events before top dead centre.
    pub exhaust_centreline: f64,
}

impl Phasing {
    /// From lobe separation and intake centreline.
    pub fn from_card(separation: f64, intake_centreline: f64) -> Self {
        Self { intake_centreline, exhaust_centreline: 2.0 * separation - intake_centreline }
    }

    /// Mean of both centrelines.
    pub fn separation(&self) -> f64 {
        0.5 * (self.intake_centreline + self.exhaust_centreline)
    }

    /// How far the cam is ground or set ahead of straight up.
    pub fn advance(&self) -> f64 {
        self.separation() - self.intake_centreline
    }

    /// The same cam advanced by so many crank degrees.
    pub fn advanced(&self, deg: f64) -> Self {
        Self { intake_centreline: self.intake_centreline - deg, exhaust_centreline: self.exhaust_centreline + deg }
    }

    /// The events of two durations at one height.
    pub fn events(&self, intake_duration: f64, exhaust_duration: f64) -> Events {
        let intake_opens_btdc = 0.5 * intake_duration - self.intake_centreline;
        let exhaust_closes_atdc = 0.5 * exhaust_duration - self.exhaust_centreline;
        Events {
            intake_opens_btdc,
            intake_closes_abdc: intake_duration - 180.0 - intake_opens_btdc,
            exhaust_opens_bbdc: exhaust_duration - 180.0 - exhaust_closes_atdc,
            exhaust_closes_atdc,
        }
    }
}

impl Events {
    /// Intake duration.
    pub fn intake_duration(&self) -> f64 {
        self.intake_opens_btdc + 180.0 + self.intake_closes_abdc
    }

    /// Exhaust duration.
    pub fn exhaust_duration(&self) -> f64 {
        self.exhaust_opens_bbdc + 180.0 + self.exhaust_closes_atdc
    }

    /// Degrees both valves are past the checking height.
    pub fn overlap(&self) -> f64 {
        self.intake_opens_btdc + self.exhaust_closes_atdc
    }

    /// Where the lobes stand.
    pub fn phasing(&self) -> Phasing {
        Phasing {
            intake_centreline: 0.5 * self.intake_duration() - self.intake_opens_btdc,
            exhaust_centreline: 0.5 * self.exhaust_duration() - self.exhaust_closes_atdc,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn events_and_card_are_the_same_cam() {
        let phasing = Phasing::from_card(112.0, 108.0);
        let events = phasing.events(216.0, 224.0);
        // Worked by hand from the definitions.
        assert_eq!(
            events,
            Events {
                intake_opens_btdc: 0.0,
                intake_closes_abdc: 36.0,
                exhaust_opens_bbdc: 48.0,
                exhaust_closes_atdc: -4.0,
            }
        );
        assert_eq!(events.phasing(), phasing);
        assert_eq!(events.overlap(), -4.0);
        assert_eq!(phasing.advance(), 4.0);
        assert_eq!(phasing.advanced(2.0).separation(), 112.0);
    }
}
