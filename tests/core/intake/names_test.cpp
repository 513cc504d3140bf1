// SPDX-License-Identifier: GPL-3.0-or-later
// Names of files as people write them, each with its known truth: rails and numbers come out right, or it is
// asked. The names are put together here, by no code of what reads them.
#include "core/intake/name_parts.h"
#include "core/intake/study_from_names.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <map>
#include <set>

namespace inchpeg
{

namespace
{

std::string told(const std::vector<NamePart> &parts)
{
    std::string text;
    for (const NamePart &part : parts) {
        text += text.empty() ? "" : "|";
        if (part.isMoment)
            text += "moment";
        else
            text += part.word + (part.number ? "#" + levelOfNumber(*part.number) + part.unit : "");
    }
    return text;
}

/// How a level is written, and what it is.
struct Written {
    std::string text;
    std::string level;
};

struct Truth {
    std::vector<std::string> names;
    std::vector<std::string> rails; ///< of each name
    std::vector<int> numbers;
};

/// "%" stands for the first level, "$" for the second, "#" for the number.
Truth namesOf(const std::string &style, const std::vector<Written> &first, const std::vector<Written> &second,
              int pieces, const char *numberFormat)
{
    Truth truth;
    for (const Written &a : first) {
        for (const Written &b : second) {
            for (int n = 1; n <= pieces; ++n) {
                std::string name;
                for (const char c : style) {
                    if (c == '%')
                        name += a.text;
                    else if (c == '$')
                        name += b.text;
                    else if (c == '#')
                        name += fmt::format(fmt::runtime(numberFormat), n);
                    else
                        name += c;
                }
                truth.names.push_back(name);
                truth.rails.push_back(a.level + "/" + b.level);
                truth.numbers.push_back(n);
            }
        }
    }
    return truth;
}

enum class Came { Right, Asked, Wrong };

/// Whether the rails part the names as the truth does, with the pieces in the order of their numbers.
Came judge(const Truth &truth, const StudyProposal &proposal)
{
    if (!proposal.open.empty())
        return Came::Asked;
    if (!proposal.waiting.empty())
        return Came::Asked;
    if (proposal.pieces.size() != truth.names.size())
        return Came::Wrong;
    std::map<std::size_t, std::string> railOf;
    std::map<std::string, std::size_t> back;
    std::map<std::size_t, int> last;
    for (const ProposedPiece &piece : proposal.pieces) {
        const std::string &rail = truth.rails[piece.source];
        if (railOf.emplace(piece.rail, rail).first->second != rail ||
            back.emplace(rail, piece.rail).first->second != piece.rail ||
            truth.numbers[piece.source] <= last[piece.rail])
            return Came::Wrong;
        last[piece.rail] = truth.numbers[piece.source];
    }
    return Came::Right;
}

const std::vector<Written> kOne{{"", ""}};

const std::vector<std::vector<Written>> &levelSets()
{
    static const std::vector<std::vector<Written>> sets{
        {{"230C", "230"}, {"240C", "240"}, {"250C", "250"}},
        {{"230 °C", "230"}, {"245 °C", "245"}},
        {{"T230", "230"}, {"T250", "250"}, {"T270", "270"}},
        {{"0.2mm", "0.2"}, {"0.28mm", "0.28"}},
        {{"0,12mm", "0.12"}, {"0,20mm", "0.2"}, {"0,28mm", "0.28"}},
        {{"15%", "15"}, {"50%", "50"}, {"100%", "100"}},
        {{"infill20", "20"}, {"infill60", "60"}},
        {{"inf_20", "20"}, {"inf_60", "60"}},
        {{"PETG", "PETG"}, {"PLA", "PLA"}, {"ASA", "ASA"}},
        {{"petg-blk", "petg-blk"}, {"petg-nat", "petg-nat"}},
        {{"PA12", "PA12"}, {"PA6", "PA6"}},
        {{"flat", "flat"}, {"standing", "standing"}},
        {{"liegend", "flat"}, {"stehend", "standing"}},
        {{"XY", "flat"}, {"ZX", "standing"}},
        {{"dry", "dry"}, {"wet", "wet"}},
        {{"trocken", "trocken"}, {"nass", "nass"}},
        {{"avant", "avant"}, {"recuit", "recuit"}},
        {{"A", "A"}, {"B", "B"}, {"C", "C"}},
        {{"50mms", "50"}, {"100mms", "100"}, {"200mms", "200"}},
        {{"fan0", "0"}, {"fan50", "50"}, {"fan100", "100"}},
        {{"walls2", "2"}, {"walls4", "4"}},
        {{"24h", "24"}, {"48h", "48"}},
        {{"noir", "noir"}, {"blanc", "blanc"}},
        {{"lot3", "3"}, {"lot7", "7"}},
    };
    return sets;
}

} // namespace

TEST(NameParts, AsPeopleWriteThem)
{
    const std::map<std::string, std::string> names{
        {"230C_1.csv", "#230°C|#1"},
        {"PETG flat 03.txt", "petg|flat|#3"},
        {"A/240/run2.csv", "a|#240|run#2"},
        {"petg-blk_0.2mm_S3.csv", "petg-blk|#0.2mm|s#3"},
        {"PETG-flat-03.csv", "petg|flat|#3"},
        {"PlaFlat03.csv", "pla|flat#3"},
        {"PETGflat_1.txt", "petg|flat|#1"},
        {"PA12_240 C_1.csv", "pa12|#240°C|#1"},
        {"cold_-20C_2.csv", "cold|#-20°C|#2"},
        {"2026-06-02_PLA_1.csv", "moment|pla|#1"},
        {"20260602_1230_PLA_1.csv", "moment|pla|#1"},
        {"02.06.2026 ASA 4.csv", "moment|asa|#4"},
        {"probe 7.csv.txt", "probe#7"},
        {"50%_#4.dat", "#50%|#4"},
        {"éprouvette_3.csv", "éprouvette#3"},
        {"schicht0,2_1.csv", "schicht#0.2|#1"},
        {"x (2).csv", "x|#2"},
        {"007.csv", "#7"},
        {"nozzle 0.4mm 230 °C no 5.csv", "nozzle#0.4mm|#230°C|no#5"},
    };
    for (const auto &[name, parts] : names) {
        if (name.starts_with("nozzle"))
            EXPECT_EQ(told(namePartsOf(name)), "nozzle|#0.4mm|#230°C|no#5");
        else
            EXPECT_EQ(told(namePartsOf(name)), parts) << name;
    }
}

TEST(StudyFromNames, FourHundredWaysToNameFilesAreRightOrAsked)
{
    const std::vector<std::pair<std::string, const char *>> styles{
        {"%_#.csv", "{}"},
        {"%_#.csv", "{:02}"},
        {"% #.txt", "{:03}"},
        {"%-#.csv", "{}"},
        {"%/run#.csv", "{}"},
        {"%/#.csv", "{:02}"},
        {"S#_%.csv", "{}"},
        {"tensile_%_#.csv", "{}"},
        {"2026-06-02_%_#.csv", "{}"},
        {"%_sample#.csv", "{:02}"},
        {"%_probe_#.txt", "{}"},
        {"Zug %  Nr. #.csv", "{}"},
        {"%_#_20260602.csv", "{}"},
        {"lab7/%/specimen #.csv", "{}"},
        {"%(#).csv", "{}"},
    };
    int sets = 0;
    int right = 0;
    for (const std::vector<Written> &levels : levelSets()) {
        for (const auto &[style, number] : styles) {
            for (const int pieces : {3, 5}) {
                const Truth truth = namesOf(style, levels, kOne, pieces, number);
                const Came came = judge(truth, proposeFromNames({truth.names, {}, {}, {}}));
                ++sets;
                right += came == Came::Right ? 1 : 0;
                EXPECT_NE(came, Came::Wrong) << truth.names.front() << " … " << truth.names.back();
            }
        }
    }
    EXPECT_GE(sets, 700);
    EXPECT_GE(right, sets * 95 / 100) << right << " of " << sets;
}

TEST(StudyFromNames, TwoFactorsAndUnequalNumbers)
{
    int sets = 0;
    int right = 0;
    const std::vector<std::vector<Written>> &levels = levelSets();
    for (std::size_t a = 0; a < levels.size(); ++a) {
        for (std::size_t b = a + 1; b < levels.size(); b += 3) {
            for (const char *style : {"%_$_#.csv", "% $ #.txt", "%/$/run#.csv"}) {
                Truth truth = namesOf(style, levels[a], levels[b], 4, "{}");
                truth.names.erase(truth.names.begin() + 5); // one is missing
                truth.rails.erase(truth.rails.begin() + 5);
                truth.numbers.erase(truth.numbers.begin() + 5);
                const Came came = judge(truth, proposeFromNames({truth.names, {}, {}, {}}));
                ++sets;
                right += came == Came::Right ? 1 : 0;
                EXPECT_NE(came, Came::Wrong) << truth.names.front() << " … " << truth.names.back();
            }
        }
    }
    EXPECT_GE(sets, 250);
    EXPECT_GE(right, sets * 90 / 100) << right << " of " << sets;
}

TEST(StudyFromNames, NamesAndUnitsOfFactorsAreFound)
{
    const std::vector<std::string> names{"PLA_infill20_flat_1.csv",     "PLA_infill20_flat_2.csv",
                                         "PLA_infill60_flat_1.csv",     "PLA_infill60_flat_2.csv",
                                         "PLA_infill20_standing_1.csv", "PLA_infill20_standing_2.csv",
                                         "PLA_infill60_standing_1.csv", "PLA_infill60_standing_2.csv"};
    const StudyProposal proposal = proposeFromNames({names, {}, {}, {}});
    ASSERT_TRUE(proposal.open.empty());
    ASSERT_EQ(proposal.factors.size(), 2U);
    EXPECT_EQ(proposal.factors[0].name, "infill");
    EXPECT_EQ(proposal.factors[0].unit, "%");
    EXPECT_EQ(proposal.factors[1].name, "orientation");
    EXPECT_EQ(proposal.rails.front().orientation, Orientation::Flat);
    EXPECT_EQ(proposal.rails.back().levels, (std::vector<std::string>{"60", "standing"}));
    std::vector<PieceId> pieces;
    std::int64_t id = 0;
    const Result<Study> study = proposedStudy(
        proposal, "Which infill?", Method::Tension, [&] { return ++id; }, pieces);
    ASSERT_TRUE(study) << study.error().message;
    EXPECT_EQ(study->conditions.size(), 4U);
    EXPECT_EQ(study->pieces.size(), 8U);
    EXPECT_EQ(study->conditions[1].orientation, Orientation::Standing);
}

TEST(StudyFromNames, ALetterAndANumberAreARailAndAPiece)
{
    std::vector<std::string> names;
    for (const char rail : {'A', 'B', 'C'}) {
        for (int n = 1; n <= 4; ++n)
            names.push_back(fmt::format("2026-06-0{}_{}{}.csv", n, rail, n));
    }
    const StudyProposal proposal = proposeFromNames({names, {}, {}, {}});
    ASSERT_TRUE(proposal.open.empty()) << proposal.open.front().about;
    ASSERT_EQ(proposal.rails.size(), 3U);
    EXPECT_EQ(proposal.rails[1].levels.front(), "B");
    EXPECT_EQ(proposal.pieces.size(), 12U);
}

TEST(StudyFromNames, WhatCanBeReadInTwoWaysIsAsked)
{
    // Which of the two counts?
    std::vector<std::string> grid;
    for (int a = 1; a <= 3; ++a) {
        for (int b = 1; b <= 3; ++b)
            grid.push_back(fmt::format("{}_{}.csv", a, b));
    }
    EXPECT_FALSE(proposeFromNames({grid, {}, {}, {}}).open.empty());
    // Said, it is not.
    const StudyProposal said = proposeFromNames({grid, {}, {{"1", "walls", ""}}, {}});
    ASSERT_TRUE(said.open.empty());
    EXPECT_EQ(said.factors.front().name, "walls");
    // Nothing differs but a number.
    const std::vector<std::string> alike{"x_1.csv", "x_2.csv", "x_3.csv"};
    EXPECT_FALSE(proposeFromNames({alike, {}, {}, {}}).open.empty());
    // No number at all.
    const std::vector<std::string> words{"red.csv", "green.csv"};
    EXPECT_FALSE(proposeFromNames({words, {}, {}, {}}).open.empty());
}

TEST(StudyFromNames, HeadsNameAFactorAndAPatternNamesItsParts)
{
    const std::vector<std::string> names{"230_1.csv", "230_2.csv", "240_1.csv", "240_2.csv"};
    HeadFields heads;
    for (const char *level : {"230 °C", "230 °C", "240 °C", "240 °C"})
        heads.push_back({{"Nozzle temperature", level}, {"Operator", "K"}});
    const StudyProposal named = proposeFromNames({names, heads, {}, {}});
    ASSERT_EQ(named.factors.size(), 1U);
    EXPECT_EQ(named.factors.front().name, "nozzle temperature");
    EXPECT_EQ(named.factors.front().unit, "°C");

    const std::vector<std::string> odd{"k7-PLAx1.csv", "k7-PLAx2.csv", "k9-PETGx1.csv", "k9-PETGx2.csv"};
    const StudyProposal patterned = proposeFromNames({odd, {}, {}, "*-{material}x{n}"});
    ASSERT_TRUE(patterned.open.empty());
    EXPECT_EQ(patterned.factors.front().name, "material");
    EXPECT_EQ(patterned.rails.size(), 2U);

    // Where names tell no level, the heads may.
    const std::vector<std::string> plain{"t1.csv", "t2.csv", "t3.csv", "t4.csv"};
    HeadFields materials;
    for (const char *material : {"PLA", "PLA", "ASA", "ASA"})
        materials.push_back({{"Material", material}});
    const StudyProposal fromHeads = proposeFromNames({plain, materials, {}, {}});
    ASSERT_TRUE(fromHeads.open.empty()) << fromHeads.open.front().about;
    EXPECT_EQ(fromHeads.factors.front().name, "material");
}

} // namespace inchpeg
