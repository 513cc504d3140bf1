// SPDX-License-Identifier: GPL-3.0-or-later
// Terms are numbered by the factors that they hold, a bit each: 1 the first, 3 the first with the second.
#include "core/stats/factorial.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/linear_model.h"

#include <fmt/format.h>

#include <algorithm>
#include <bit>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

using TermBits = unsigned;

/// Sum-to-zero contrasts: a column for each level but the last, which is -1 in all.
Eigen::VectorXd contrasts(std::size_t level, std::size_t levels)
{
    const auto columns = static_cast<Eigen::Index>(levels) - 1;
    if (level + 1 == levels)
        return Eigen::VectorXd::Constant(columns, -1.0);
    return Eigen::VectorXd::Unit(columns, static_cast<Eigen::Index>(level));
}

/// What all models of one analysis have in common.
class Design
{
public:
    explicit Design(std::span<const FactorialValue> values)
        : m_values(values), m_levels(values.front().levels.size(), 0)
    {
        for (const FactorialValue &value : values) {
            require(value.levels.size() == m_levels.size() &&
                        value.covariates.size() == values.front().covariates.size(),
                    "each value needs as many levels and covariates as the first");
            for (std::size_t f = 0; f < m_levels.size(); ++f)
                m_levels[f] = std::max(m_levels[f], value.levels[f] + 1);
            m_cells[value.levels].push_back(value.value);
        }
        m_centres.assign(values.front().covariates.size(), 0.0);
        for (std::size_t c = 0; c < m_centres.size(); ++c) {
            std::vector<double> all;
            for (const FactorialValue &value : values)
                all.push_back(value.covariates[c]);
            m_centres[c] = meanOf(all);
        }
        for (TermBits bits = 1; bits < (1U << m_levels.size()); ++bits)
            m_terms.push_back(bits);
        std::stable_sort(m_terms.begin(), m_terms.end(),
                         [](TermBits a, TermBits b) { return std::popcount(a) < std::popcount(b); });
    }

    [[nodiscard]] const std::vector<TermBits> &terms() const { return m_terms; }
    [[nodiscard]] const std::map<std::vector<std::size_t>, std::vector<double>> &cells() const
    {
        return m_cells;
    }
    [[nodiscard]] std::size_t factors() const { return m_levels.size(); }
    [[nodiscard]] std::size_t levelsOf(std::size_t factor) const { return m_levels[factor]; }
    [[nodiscard]] std::size_t covariates() const { return m_centres.size(); }
    [[nodiscard]] std::size_t combinations() const
    {
        std::size_t all = 1;
        for (const std::size_t levels : m_levels)
            all *= levels;
        return all;
    }

    /// The constant, the covariates but one (each from its mean) and the terms that are kept.
    [[nodiscard]] LinearModel model(const std::vector<TermBits> &kept,
                                    std::optional<std::size_t> without = {}) const
    {
        std::vector<Eigen::VectorXd> rows;
        for (const FactorialValue &value : m_values)
            rows.push_back(row(value, kept, without));
        Eigen::MatrixXd design(static_cast<Eigen::Index>(rows.size()), rows.front().size());
        for (std::size_t i = 0; i < rows.size(); ++i)
            design.row(static_cast<Eigen::Index>(i)) = rows[i].transpose();
        return LinearModel(design);
    }

    /// Of the full model: the row of a level of one factor, over the levels of the others alike.
    [[nodiscard]] Eigen::VectorXd meanRow(std::size_t factor, std::size_t level, Eigen::Index columns) const
    {
        Eigen::VectorXd at = Eigen::VectorXd::Zero(columns);
        at[0] = 1.0;
        Eigen::Index place = 1 + static_cast<Eigen::Index>(m_centres.size());
        for (std::size_t f = 0; f < factor; ++f)
            place += static_cast<Eigen::Index>(m_levels[f]) - 1;
        const Eigen::VectorXd own = contrasts(level, m_levels[factor]);
        at.segment(place, own.size()) = own;
        return at;
    }

private:
    [[nodiscard]] Eigen::VectorXd row(const FactorialValue &value, const std::vector<TermBits> &kept,
                                      std::optional<std::size_t> without) const
    {
        std::vector<double> cells{1.0};
        for (std::size_t c = 0; c < m_centres.size(); ++c) {
            if (without != c)
                cells.push_back(value.covariates[c] - m_centres[c]);
        }
        for (const TermBits bits : kept) {
            std::vector<double> products{1.0};
            for (std::size_t f = 0; f < m_levels.size(); ++f) {
                if ((bits >> f & 1U) == 0)
                    continue;
                std::vector<double> longer;
                for (const double own : contrasts(value.levels[f], m_levels[f])) {
                    for (const double product : products)
                        longer.push_back(product * own);
                }
                products = std::move(longer);
            }
            cells.insert(cells.end(), products.begin(), products.end());
        }
        return Eigen::Map<Eigen::VectorXd>(cells.data(), static_cast<Eigen::Index>(cells.size()));
    }

    std::span<const FactorialValue> m_values;
    std::vector<std::size_t> m_levels;
    std::vector<double> m_centres;
    std::vector<TermBits> m_terms;
    std::map<std::vector<std::size_t>, std::vector<double>> m_cells;
};

/// Tests a term against the residual.
void test(FactorialTerm &term, const FactorialTerm &residual)
{
    if (term.df > 0.0)
        term.meanSquare = term.squares / term.df;
    if (term.squares + residual.squares > 0.0)
        term.partialEta2 = term.squares / (term.squares + residual.squares);
    if (!term.meanSquare || !residual.meanSquare || !(*residual.meanSquare > 0.0))
        return;
    term.f = *term.meanSquare / *residual.meanSquare;
    term.p = fisherUpper(*term.f, term.df, residual.df);
}

/// Without covariates from the cells themselves: exact where a cell's values are equal.
FactorialTerm residualOf(const Design &design, const LinearModel &full, const Eigen::VectorXd &y)
{
    FactorialTerm residual;
    if (design.covariates() > 0) {
        residual.df = static_cast<double>(y.size() - full.rank());
        residual.squares = residual.df > 0.0 ? (y - full.fitted(y)).squaredNorm() : 0.0;
    } else {
        for (const auto &[levels, values] : design.cells()) {
            if (values.size() < 2)
                continue;
            const auto df = static_cast<double>(values.size() - 1);
            residual.df += df;
            residual.squares += df * varianceOf(values);
        }
    }
    if (residual.df > 0.0)
        residual.meanSquare = residual.squares / residual.df;
    return residual;
}

/// Terms of the full model beside which a term is tested.
std::vector<TermBits> othersOf(const Design &design, TermBits term, SquaresType type)
{
    std::vector<TermBits> others;
    for (const TermBits other : design.terms()) {
        const bool contains = (other & term) == term;
        if (other != term && (type == SquaresType::Third || !contains))
            others.push_back(other);
    }
    return others;
}

void estimate(FactorialAnova &anova, const Design &design, const LinearModel &full, const Eigen::VectorXd &y,
              double centre, double confidence)
{
    const Eigen::VectorXd coefficients = full.coefficients(y);
    const Eigen::MatrixXd covariance = full.unscaledCovariance() * anova.residual.meanSquare.value_or(0.0);
    const bool hasResidual = anova.residual.meanSquare && *anova.residual.meanSquare > 0.0;
    const double t = hasResidual ? studentQuantile(0.5 + 0.5 * confidence, anova.residual.df) : 0.0;
    struct Estimated {
        double value = 0.0;
        std::optional<double> se;
        std::optional<Interval> ci;
    };
    const auto estimated = [&](const Eigen::VectorXd &at) {
        Estimated one{at.dot(coefficients), {}, {}};
        if (hasResidual) {
            one.se = std::sqrt(at.dot(covariance * at));
            one.ci = Interval{one.value - t * *one.se, one.value + t * *one.se};
        }
        return one;
    };
    for (std::size_t f = 0; f < design.factors(); ++f) {
        const Eigen::VectorXd first = design.meanRow(f, 0, coefficients.size());
        for (std::size_t level = 0; level < design.levelsOf(f); ++level) {
            const Eigen::VectorXd at = design.meanRow(f, level, coefficients.size());
            Estimated mean = estimated(at);
            if (mean.ci)
                mean.ci = Interval{mean.ci->low + centre, mean.ci->high + centre};
            anova.means.push_back({f, level, mean.value + centre, mean.se, mean.ci});
            if (level == 0)
                continue;
            const Estimated difference = estimated(at - first);
            anova.differences.push_back({f, level, difference.value, difference.se, difference.ci});
        }
    }
    for (std::size_t c = 0; c < design.covariates(); ++c) {
        const Estimated slope =
            estimated(Eigen::VectorXd::Unit(coefficients.size(), static_cast<Eigen::Index>(c) + 1));
        anova.slopes.push_back({slope.value, slope.se, slope.ci});
    }
}

Status checkDesign(std::span<const FactorialValue> values, const Design &design, SquaresType type)
{
    for (std::size_t f = 0; f < design.factors(); ++f) {
        std::set<std::size_t> seen;
        for (const FactorialValue &value : values)
            seen.insert(value.levels[f]);
        if (seen.size() < 2)
            return Error{ErrorCode::TooFewPoints,
                         fmt::format("factor {} has {} level{} with values; at least two are wanted", f + 1,
                                     seen.size(), seen.size() == 1 ? "" : "s"),
                         {}};
    }
    if (type == SquaresType::Third && design.cells().size() < design.combinations())
        return invalidArgument(
            fmt::format("{} of {} combinations of levels hold no value; sums of squares of type 3 want all "
                        "of them, type 2 does without",
                        design.combinations() - design.cells().size(), design.combinations()));
    return ok();
}

} // namespace

Result<FactorialAnova> factorialAnova(std::span<const FactorialValue> values, SquaresType type,
                                      double confidence)
{
    require(!values.empty() && !values.front().levels.empty() &&
                values.front().levels.size() <= kMostFactorsAnalysed,
            "factorialAnova() needs values of one to three factors");
    const Design design(values);
    if (const Status usable = checkDesign(values, design, type); !usable)
        return usable.error();
    std::vector<double> plain;
    for (const FactorialValue &value : values)
        plain.push_back(value.value);
    const double centre = meanOf(plain); // so that a large mean costs no digits
    const Eigen::VectorXd y =
        Eigen::Map<Eigen::VectorXd>(plain.data(), static_cast<Eigen::Index>(plain.size())).array() - centre;

    const LinearModel full = design.model(design.terms());
    FactorialAnova anova;
    anova.residual = residualOf(design, full, y);
    const auto add = [&](FactorialTerm term, const LinearModel &smaller, const LinearModel &larger) {
        const AddedSquares added = addedSquares(smaller, larger, y);
        term.df = static_cast<double>(added.df);
        term.squares = added.squares;
        test(term, anova.residual);
        anova.terms.push_back(std::move(term));
    };
    for (std::size_t c = 0; c < design.covariates(); ++c)
        add({{}, c, 0.0, 0.0, {}, {}, {}, {}}, design.model(design.terms(), c), full);
    for (const TermBits term : design.terms()) {
        FactorialTerm named;
        for (std::size_t f = 0; f < design.factors(); ++f) {
            if ((term >> f & 1U) != 0)
                named.factors.push_back(f);
        }
        std::vector<TermBits> others = othersOf(design, term, type);
        const LinearModel smaller = design.model(others);
        others.push_back(term);
        add(std::move(named), smaller, type == SquaresType::Third ? full : design.model(others));
    }
    const bool isWhole = full.rank() == static_cast<int>(design.combinations() + design.covariates());
    if (isWhole)
        estimate(anova, design, full, y, centre, confidence);
    return anova;
}

} // namespace inchpeg
