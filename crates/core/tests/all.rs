//! Every test of the core from outside, in one program: a program each would compile and link the core thirty times.
//! A module is run when it is named here, and `architecture` fails when one is not.

#![allow(clippy::expect_used, clippy::unwrap_used)]

mod architecture;
mod around_the_ports;
mod beginnings;
mod bench;
mod breathing;
mod calibration;
mod candidates;
mod control;
mod control_signs;
mod edits;
mod follower_motion;
mod gaps_reference;
mod hardware;
mod hostile_input;
mod idle_and_cranking;
mod limits_and_remedies;
mod linkage_reference;
mod lobe_cards;
mod lobes_by_hand;
mod measured_engine;
mod motion;
mod mutated_documents;
mod orders;
mod published_examples;
mod ranking;
mod ranking_cases;
mod reference_cases;
mod remedies;
mod rules_read_what_they_declare;
mod scipy_reference;
mod shelf;
mod shelf_properties;
mod signs;
mod spring_sheet;
mod springs_stay;
mod support;
mod thermo_reference;
mod units_reference;
mod valve_train;
mod verdict_edges;
mod verdicts_by_hand;
mod waves;
mod worked_example;
