// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <vector>

namespace inchpeg
{

/// The spread of a standard deviation estimated from df: s² is chi-squared with df degrees of freedom divided
/// by df. Composite Gauss–Legendre over log s, laid out once for many means.
class EstimatedScale
{
public:
    explicit EstimatedScale(double df);

    /// Mean of f(s); f is smooth and between 0 and 1.
    template <typename F>
    [[nodiscard]] double mean(F f) const
    {
        double sum = 0.0;
        for (const Node &node : m_nodes)
            sum += node.weight * f(node.scale);
        return std::min(1.0, sum);
    }

private:
    struct Node {
        double scale = 0.0;
        double weight = 0.0;
    };
    std::vector<Node> m_nodes;
};

/// Thin names over Boost.Math. Degrees of freedom are positive and need not be whole.
double normalCdf(double z);
/// P(Z > z), right to the last digits far out too.
double normalUpper(double z);
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
/// P(T <= t) for Student's t with a noncentrality, integrated over the spread of the estimated standard
/// deviation: faster than the usual series, and a large noncentrality does no harm.
double noncentralStudentCdf(double t, double df, double noncentrality);
/// The same over a scale that is laid out already.
double noncentralStudentCdf(double t, const EstimatedScale &scale, double noncentrality);
/// P(|T| > t), integrated likewise.
double noncentralStudentBeyond(double t, double df, double noncentrality);
double noncentralStudentBeyond(double t, const EstimatedScale &scale, double noncentrality);
/// t with P(T <= t) = probability; for a noncentrality of at least 0 and a probability
/// of at least one half.
double noncentralStudentQuantile(double probability, double df, double noncentrality);
/// The noncentrality under which P(T <= t) is the given probability.
double studentNoncentrality(double t, double df, double probability);

} // namespace inchpeg
