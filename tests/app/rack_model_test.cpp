// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/rack/rack_model.h"
#include "app/theme/theme.h"
#include "core/method/tension/tension_reading.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

namespace inchpeg::app
{

namespace
{

RackModel modelOf(const test::StudyBuilder &builder, const char *property = "tensile_strength")
{
    return rackModel(builder.study, builder.readings, *findProperty(kTensileReduction, property));
}

/// WCAG 2.1, relative luminance and contrast ratio.
double luminance(const QColor &colour)
{
    const auto linear = [](double channel) {
        return channel <= 0.03928 ? channel / 12.92 : std::pow((channel + 0.055) / 1.055, 2.4);
    };
    return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) +
           0.0722 * linear(colour.blueF());
}
double contrast(const QColor &a, const QColor &b)
{
    const double high = std::max(luminance(a), luminance(b));
    const double low = std::min(luminance(a), luminance(b));
    return (high + 0.05) / (low + 0.05);
}

} // namespace

TEST(RackModel, EachStateOfAPegIsTold)
{
    test::StudyBuilder builder;
    builder.rail("230", {30, 31, 32, 33, 34}, Orientation::Standing, 2);
    std::vector<Piece> &pieces = builder.study.pieces;
    PieceReading doubtful;
    doubtful.result.values = {{"tensile_strength", 30.0}};
    doubtful.result.validity = {{"the break is in the record", false, "it ends before"}};
    builder.readings[pieces[1].id] = std::make_shared<const Result<PieceReading>>(doubtful);
    builder.readings[pieces[2].id] =
        std::make_shared<const Result<PieceReading>>(badInput("no force column", TextPosition{1, {}}));
    pieces[3].exclusion = Exclusion{"slipped", "me", "2026-01-01T00:00:00Z"};
    pieces[4].section.reset();
    PieceReading forceOnly; // what needs no section
    forceOnly.result.values = {{"peak_force", 1200.0}};
    builder.readings[pieces[4].id] = std::make_shared<const Result<PieceReading>>(forceOnly);
    pieces[5].section = RoundSection{millimetres(5)};
    const RackModel model = modelOf(builder);
    const std::vector<PegModel> &pegs = model.rails[0].pegs;
    const PegState wanted[] = {PegState::Read,     PegState::Doubtful, PegState::Failed, PegState::LeftOut,
                               PegState::Recorded, PegState::Measured, PegState::Open};
    ASSERT_EQ(pegs.size(), std::size(wanted));
    for (std::size_t i = 0; i < pegs.size(); ++i)
        EXPECT_EQ(pegs[i].state, wanted[i]) << i << " " << pegs[i].tip.toStdString();
    EXPECT_TRUE(pegs[1].tip.contains(QStringLiteral("it ends before")));
    EXPECT_TRUE(pegs[2].tip.contains(QStringLiteral("line 1: no force column")));
    EXPECT_TRUE(pegs[3].tip.contains(QStringLiteral("left out by me: slipped")));
    EXPECT_TRUE(pegs[0].tip.contains(QStringLiteral("30.00 MPa")));
}

TEST(RackModel, EveryStateHasItsOwnWords)
{
    std::set<QString> words;
    for (const PegState state : {PegState::Open, PegState::Measured, PegState::Recorded, PegState::Read,
                                 PegState::Doubtful, PegState::Failed, PegState::LeftOut})
        words.insert(pegStateText(state));
    EXPECT_EQ(words.size(), 7U);
}

TEST(RackModel, RatiosAreShownInPercent)
{
    test::StudyBuilder builder;
    builder.rail("230", {30});
    PieceReading reading;
    reading.result.values = {{"strain_at_break", 0.042}};
    builder.readings[builder.study.pieces[0].id] = std::make_shared<const Result<PieceReading>>(reading);
    const RackModel model = modelOf(builder, "strain_at_break");
    EXPECT_EQ(model.scaleTitle, QStringLiteral("Strain at break in %"));
    EXPECT_NEAR(*model.rails[0].pegs[0].value, 4.2, 1e-12);
    EXPECT_NEAR(*model.rails[0].mean, 4.2, 1e-12);
}

TEST(RackModel, BoundsHaveNoInterval)
{
    test::StudyBuilder builder;
    builder.rail("230", {30, 30, 30}, Orientation::Standing, 0, true);
    const RackModel model = modelOf(builder);
    EXPECT_FALSE(model.rails[0].interval);
    EXPECT_TRUE(model.rails[0].pegs[0].atLeast);
    EXPECT_TRUE(model.rails[0].meanText.startsWith(QStringLiteral("at least")));
}

TEST(RackModel, TheOrientationIsSaidOnlyWhereItDiffers)
{
    test::StudyBuilder builder;
    builder.rail("230", {30, 31});
    EXPECT_FALSE(modelOf(builder).rails[0].subtitle.contains(QStringLiteral("standing")));
    builder.rail("230", {50, 51}, Orientation::Flat);
    EXPECT_TRUE(modelOf(builder).rails[0].subtitle.contains(QStringLiteral("standing")));
    EXPECT_TRUE(modelOf(builder).rails[1].subtitle.contains(QStringLiteral("flat")));
}

TEST(Theme, TextIsReadableInBothThemes)
{
    for (const Theme &theme : {paperTheme(), workshopTheme()}) {
        for (const QColor &ground : {theme.ground, theme.sheet}) {
            EXPECT_GE(contrast(theme.ink, ground), 7.0) << "WCAG 2.1, 1.4.6";
            EXPECT_GE(contrast(theme.softInk, ground), 4.5) << "WCAG 2.1, 1.4.3";
            EXPECT_GE(contrast(theme.warning, ground), 4.5);
            EXPECT_GE(contrast(theme.accent, ground), 4.5);
        }
        EXPECT_GE(contrast(theme.onAccent, theme.accent), 4.5);
        for (const QColor &ink : theme.railInks)
            EXPECT_GE(contrast(ink, theme.sheet), 3.0) << "WCAG 2.1, 1.4.11: lines";
    }
}

TEST(Theme, NoTwoOfSixRailsShareTheirDashes)
{
    std::set<QList<qreal>> dashes;
    for (int rail = 0; rail < 6; ++rail)
        dashes.insert(railDashes(rail));
    EXPECT_EQ(dashes.size(), 6U) << "told apart without colour";
}

} // namespace inchpeg::app
