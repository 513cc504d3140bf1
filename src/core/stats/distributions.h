// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>

namespace inchpeg
{

/// Thin names over Boost.Math. Degrees of freedom are positive and need not be whole.
double normalCdf(double z);
double normalQuantile(double probability);
double studentQuantile(double probability, double df);
/// P(|T| > |t|).
double studentTwoSided(double t, double df);
/// P(F > f).
double fisherUpper(double f, double df1, double df2);
/// f with P(F > f) = probability.
double fisherQuantileUpper(double probability, double df1, double df2);
/// P(F > f) for Fisher's F with a noncentrality of at least 0.
double noncentralFisherUpper(double f, double df1, double df2, double noncentrality);
/// P(X > x).
double chiSquaredUpper(double x, double df);
/// P(T <= t) for Student's t with a noncentrality.
double noncentralStudentCdf(double t, double df, double noncentrality);
/// P(|T| > t) for Student's t with a noncentrality; integrated over the spread of the estimated standard
/// deviation, so that a large noncentrality does no harm.
double noncentralStudentBeyond(double t, double df, double noncentrality);
/// t with P(T <= t) = probability, integrated as above; for a noncentrality of at least 0 and a probability
/// of at least one half.
double noncentralStudentQuantile(double probability, double df, double noncentrality);
/// The noncentrality under which P(T <= t) is the given probability.
double studentNoncentrality(double t, double df, double probability);

/// Mean of f(s) where s² is chi-squared with df degrees of freedom divided by df: the spread of a standard
/// deviation estimated from df. Composite Gauss–Legendre over log s; f is smooth and between 0 and 1.
double meanOverScale(double df, const std::function<double(double)> &f);

} // namespace inchpeg
