// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/two_way.h"

#include "core/stats/distributions.h"
#include "core/stats/linear_model.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

/// Sum-to-zero contrasts: a column for each level but the last, which is -1 in all.
Eigen::VectorXd contrasts(std::size_t level, std::size_t levels)
{
    const auto columns = static_cast<Eigen::Index>(levels) - 1;
    if (level + 1 == levels)
        return Eigen::VectorXd::Constant(columns, -1.0);
    return Eigen::VectorXd::Unit(columns, static_cast<Eigen::Index>(level));
}

/// Which terms a model holds beside the constant.
struct Terms {
    bool a = false;
    bool b = false;
    bool interaction = false;
};

LinearModel modelOf(std::span<const TwoWayValue> values, std::size_t levelsA, std::size_t levelsB,
                    Terms terms)
{
    const auto widthA = static_cast<Eigen::Index>(levelsA) - 1;
    const auto widthB = static_cast<Eigen::Index>(levelsB) - 1;
    const Eigen::Index columns =
        1 + (terms.a ? widthA : 0) + (terms.b ? widthB : 0) + (terms.interaction ? widthA * widthB : 0);
    Eigen::MatrixXd design(static_cast<Eigen::Index>(values.size()), columns);
    for (std::size_t i = 0; i < values.size(); ++i) {
        const Eigen::VectorXd a = contrasts(values[i].a, levelsA);
        const Eigen::VectorXd b = contrasts(values[i].b, levelsB);
        Eigen::VectorXd row(columns);
        row[0] = 1.0;
        Eigen::Index at = 1;
        const auto put = [&](const Eigen::VectorXd &part) {
            row.segment(at, part.size()) = part;
            at += part.size();
        };
        if (terms.a)
            put(a);
        if (terms.b)
            put(b);
        if (terms.interaction) {
            const Eigen::MatrixXd products = b * a.transpose();
            put(products.reshaped());
        }
        design.row(static_cast<Eigen::Index>(i)) = row.transpose();
    }
    return LinearModel(design);
}

/// Tests a term against the residual.
void test(TwoWayTerm &term, const TwoWayTerm &residual)
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

/// Residual squares from the cells themselves: exact where a cell's values are equal.
TwoWayTerm residualOf(std::span<const TwoWayValue> values, std::size_t levelsA, std::size_t levelsB)
{
    std::vector<Group> cells(levelsA * levelsB);
    for (const TwoWayValue &value : values)
        cells[value.a * levelsB + value.b].values.push_back(value.value);
    TwoWayTerm residual;
    for (const Group &cell : cells) {
        if (cell.values.size() < 2)
            continue;
        const auto df = static_cast<double>(cell.values.size() - 1);
        residual.df += df;
        residual.squares += df * varianceOf(cell.values);
    }
    if (residual.df > 0.0)
        residual.meanSquare = residual.squares / residual.df;
    return residual;
}

} // namespace

Result<TwoWayAnova> twoWayAnova(std::span<const TwoWayValue> values, SquaresType type)
{
    std::set<std::size_t> seenA;
    std::set<std::size_t> seenB;
    std::set<std::pair<std::size_t, std::size_t>> cells;
    for (const TwoWayValue &value : values) {
        seenA.insert(value.a);
        seenB.insert(value.b);
        cells.insert({value.a, value.b});
    }
    if (seenA.size() < 2 || seenB.size() < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("the factors have {} and {} levels with values; each wants at least two",
                                 seenA.size(), seenB.size()),
                     {}};
    const std::size_t levelsA = *seenA.rbegin() + 1;
    const std::size_t levelsB = *seenB.rbegin() + 1;
    if (type == SquaresType::Third && cells.size() < seenA.size() * seenB.size())
        return invalidArgument(
            fmt::format("{} of {} combinations of levels hold no value; sums of squares of "
                        "type 3 want all of them, type 2 does without",
                        seenA.size() * seenB.size() - cells.size(), seenA.size() * seenB.size()));
    Eigen::VectorXd y(static_cast<Eigen::Index>(values.size()));
    for (std::size_t i = 0; i < values.size(); ++i)
        y[static_cast<Eigen::Index>(i)] = values[i].value;
    const auto model = [&](Terms terms) { return modelOf(values, levelsA, levelsB, terms); };
    const LinearModel full = model({true, true, true});
    const LinearModel additive = model({true, true, false});
    const auto term = [&](const LinearModel &smaller, const LinearModel &larger) {
        const AddedSquares added = addedSquares(smaller, larger, y);
        return TwoWayTerm{static_cast<double>(added.df), added.squares, {}, {}, {}, {}};
    };
    TwoWayAnova anova;
    anova.residual = residualOf(values, levelsA, levelsB);
    anova.interaction = term(additive, full);
    if (type == SquaresType::Second) {
        anova.a = term(model({false, true, false}), additive);
        anova.b = term(model({true, false, false}), additive);
    } else {
        anova.a = term(model({false, true, true}), full);
        anova.b = term(model({true, false, true}), full);
    }
    for (TwoWayTerm *one : {&anova.a, &anova.b, &anova.interaction})
        test(*one, anova.residual);
    return anova;
}

} // namespace inchpeg
