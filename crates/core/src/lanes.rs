//! Vector registers with the operators of numbers, so that a formula over many cells reads like one over one cell.
//!
//! Only functions that are always inlined stand here: one that is not is compiled for any machine, and calls cost more
//! than what they compute.

use pulp::Simd;
use std::ops::{Add, Mul, Neg, Sub};

/// As many numbers as a register of the machine holds.
#[derive(Clone, Copy)]
pub(crate) struct Lanes<S: Simd>(S, S::f64s);

/// A yes or no for each number.
pub(crate) struct Mask<S: Simd>(S, S::m64s);

impl<S: Simd> Lanes<S> {
    /// The same number in all.
    #[inline(always)]
    pub fn all(simd: S, value: f64) -> Self {
        Self(simd, simd.splat_f64s(value))
    }

    /// The numbers of `values` from `at`.
    #[inline(always)]
    pub fn load(simd: S, values: &[f64], at: usize) -> Self {
        Self(simd, S::as_simd_f64s(&values[at..at + S::F64_LANES]).0[0])
    }

    /// Writes them to `values` from `at`.
    #[inline(always)]
    pub fn store(self, values: &mut [f64], at: usize) {
        S::as_mut_simd_f64s(&mut values[at..at + S::F64_LANES]).0[0] = self.1;
    }

    #[inline(always)]
    pub fn by(self, divisor: Self) -> Self {
        Self(self.0, self.0.div_f64s(self.1, divisor.1))
    }

    #[inline(always)]
    pub fn abs(self) -> Self {
        self.most(-self)
    }

    #[inline(always)]
    pub fn sqrt(self) -> Self {
        Self(self.0, self.0.sqrt_f64s(self.1))
    }

    #[inline(always)]
    pub fn least(self, other: Self) -> Self {
        Self(self.0, self.0.min_f64s(self.1, other.1))
    }

    #[inline(always)]
    pub fn most(self, other: Self) -> Self {
        Self(self.0, self.0.max_f64s(self.1, other.1))
    }

    /// The largest of them.
    #[inline(always)]
    pub fn largest(self) -> f64 {
        self.0.reduce_max_f64s(self.1)
    }

    #[inline(always)]
    pub fn above(self, other: Self) -> Mask<S> {
        Mask(self.0, self.0.less_than_f64s(other.1, self.1))
    }
}

impl<S: Simd> Mask<S> {
    #[inline(always)]
    pub fn and(self, other: Self) -> Self {
        Self(self.0, self.0.and_m64s(self.1, other.1))
    }

    /// `yes` where it holds, `no` elsewhere.
    #[inline(always)]
    pub fn pick(&self, yes: Lanes<S>, no: Lanes<S>) -> Lanes<S> {
        let bits = self.0.select_u64s(self.1, pulp::cast(yes.1), pulp::cast(no.1));
        Lanes(self.0, pulp::cast(bits))
    }
}

impl<S: Simd> Add for Lanes<S> {
    type Output = Self;

    #[inline(always)]
    fn add(self, other: Self) -> Self {
        Self(self.0, self.0.add_f64s(self.1, other.1))
    }
}

impl<S: Simd> Sub for Lanes<S> {
    type Output = Self;

    #[inline(always)]
    fn sub(self, other: Self) -> Self {
        Self(self.0, self.0.sub_f64s(self.1, other.1))
    }
}

impl<S: Simd> Mul for Lanes<S> {
    type Output = Self;

    #[inline(always)]
    fn mul(self, other: Self) -> Self {
        Self(self.0, self.0.mul_f64s(self.1, other.1))
    }
}

impl<S: Simd> Neg for Lanes<S> {
    type Output = Self;

    #[inline(always)]
    fn neg(self) -> Self {
        Self::all(self.0, 0.0) - self
    }
}
