// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/piece_table_model.h"
#include "app/log/typed_rows_model.h"
#include "app/rack/rack_geometry.h"
#include "core/model/study_edit.h"

#include <QTemporaryDir>

#include <gtest/gtest.h>

namespace inchpeg::app
{

namespace
{

class PieceTable : public testing::Test
{
protected:
    QTemporaryDir m_folder;
    ProjectSession m_session{QStringLiteral("me"), [] { return std::string(); }};
    PieceTableModel m_model{m_session};
    QString m_failure;

    void SetUp() override
    {
        QObject::connect(&m_session, &ProjectSession::failed,
                         [this](const QString &sentence) { m_failure = sentence; });
        ASSERT_TRUE(m_session.createProject(m_folder.filePath(QStringLiteral("p.inchpeg"))));
        ASSERT_TRUE(m_session.addStudy(QStringLiteral("q?")));
        ASSERT_TRUE(m_session.edit(QStringLiteral("rails"), [&](Study &study) {
            firstTest(study).piecesPerCondition = 3;
            return addCondition(study, {{}, {"a"}, {}, {}}, m_session.ids());
        }));
    }
    [[nodiscard]] QString cell(int row, int column) const
    {
        return m_model.index(row, column).data().toString();
    }
    bool type(int row, int column, const char *text)
    {
        return m_model.setData(m_model.index(row, column), QString::fromUtf8(text), Qt::EditRole);
    }
};

constexpr int kWidth = 2;
constexpr int kThickness = 3;
constexpr int kArea = 4;

} // namespace

TEST_F(PieceTable, TakesTypedValuesWithAndWithoutUnit)
{
    EXPECT_TRUE(type(0, kWidth, "10,02"));
    EXPECT_EQ(cell(0, kWidth), QStringLiteral("10.02"));
    EXPECT_EQ(cell(0, kArea), QString()) << "no area before both are known";
    EXPECT_TRUE(type(0, kThickness, "0.157 in"));
    EXPECT_EQ(cell(0, kThickness), QStringLiteral("3.988"));
    EXPECT_EQ(cell(0, kArea), QStringLiteral("39.96"));
}

TEST_F(PieceTable, RefusesWhatIsNoSize)
{
    EXPECT_FALSE(type(0, kWidth, "0"));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("above zero")));
    EXPECT_FALSE(type(0, kWidth, "wide"));
    EXPECT_FALSE(type(0, kWidth, "10 N"));
    EXPECT_FALSE(type(0, kWidth, "-3"));
    EXPECT_EQ(cell(0, kWidth), QString());
}

TEST_F(PieceTable, PastesABlockAsOneStep)
{
    EXPECT_TRUE(
        m_model.paste(m_model.index(0, kWidth), QStringLiteral("10.1\t4.1\r\n10,2\t4,2\n10.3\t4.3\n")));
    EXPECT_EQ(cell(1, kWidth), QStringLiteral("10.20"));
    EXPECT_EQ(cell(2, kThickness), QStringLiteral("4.30"));
    ASSERT_TRUE(m_session.undo());
    EXPECT_EQ(cell(0, kWidth) + cell(2, kThickness), QString());
}

TEST_F(PieceTable, ABadPasteChangesNothingAndNamesThePlace)
{
    EXPECT_FALSE(m_model.paste(m_model.index(0, kWidth), QStringLiteral("10.1\t4.1\n10.2\tthick\n")));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("piece A2"))) << m_failure.toStdString();
    EXPECT_EQ(cell(0, kWidth), QString());
    EXPECT_FALSE(m_model.paste(m_model.index(2, kWidth), QStringLiteral("1\n2\n")));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("1 pieces are left"))) << m_failure.toStdString();
    EXPECT_FALSE(m_model.paste(m_model.index(0, kThickness), QStringLiteral("1\t2\ta note\ttoo many\n")));
    EXPECT_FALSE(m_model.paste(m_model.index(0, kWidth), QString()));
}

TEST_F(PieceTable, ClearsAndCopies)
{
    ASSERT_TRUE(m_model.paste(m_model.index(0, kWidth), QStringLiteral("10\t4\n11\t5\n")));
    EXPECT_EQ(m_model.copied({m_model.index(0, kWidth), m_model.index(1, kThickness)}),
              QStringLiteral("10.00\t4.00\n11.00\t5.00"));
    ASSERT_TRUE(m_model.clear({m_model.index(0, kWidth), m_model.index(0, kThickness)}));
    EXPECT_FALSE(m_session.study()->pieces[0].section);
}

TEST_F(PieceTable, EnterGoesAlongTheRowAndOn)
{
    EXPECT_EQ(m_model.nextEntry(m_model.index(0, kWidth)), m_model.index(0, kThickness));
    EXPECT_EQ(m_model.placeAt(m_model.nextEntry(m_model.index(0, kThickness)).column())->field,
              LogField::Mass);
    m_model.setWalk(Walk::Sizes);
    EXPECT_EQ(m_model.nextEntry(m_model.index(0, kThickness)), m_model.index(1, kWidth));
    EXPECT_EQ(m_model.nextEntry(m_model.index(2, kThickness)), m_model.index(2, kThickness))
        << "stays at the end";
}

TEST_F(PieceTable, ColumnsFollowTheShape)
{
    ASSERT_TRUE(m_session.edit(QStringLiteral("shape"), [](Study &study) {
        study.sectionShape = SectionShape::Round;
        return ok();
    }));
    EXPECT_EQ(m_model.headerData(2, Qt::Horizontal, Qt::DisplayRole).toString(),
              QStringLiteral("Diameter\nmm"));
    EXPECT_TRUE(type(0, 2, "5"));
    EXPECT_EQ(cell(0, 3), QStringLiteral("19.63"));
}

namespace
{

RackModel rackOf(std::size_t rails, std::size_t pegs)
{
    RackModel model;
    for (std::size_t r = 0; r < rails; ++r) {
        RailModel rail;
        rail.condition = ConditionId{static_cast<std::int64_t>(r + 1)};
        for (std::size_t p = 0; p < pegs; ++p) {
            PegModel peg;
            peg.piece = PieceId{static_cast<std::int64_t>(1000 * r + p + 1)};
            peg.value = 30.0 + static_cast<double>((p * 7 + r) % 11);
            rail.pegs.push_back(peg);
        }
        model.rails.push_back(rail);
    }
    return model;
}

} // namespace

TEST(RackGeometry, ThreeHundredPiecesStayInTheirRows)
{
    for (const auto &[rails, pegs] : {std::pair<std::size_t, std::size_t>{6, 50}, {48, 6}, {1, 200}}) {
        for (bool comparing : {false, true}) {
            const RackModel model = rackOf(rails, pegs);
            const RackGeometry geometry = rackGeometry(model, {1000.0, 600.0, 0.0, comparing, 18.0});
            double lastBottom = 0.0;
            for (const RackGeometry::Rail &rail : geometry.rails) {
                EXPECT_GE(rail.row.top() + 0.01, lastBottom) << "rows do not overlap";
                lastBottom = rail.row.bottom();
                for (const std::vector<QPointF> *points : {&rail.holes, &rail.places}) {
                    for (const QPointF &point : *points) {
                        EXPECT_TRUE(rail.row.adjusted(0, -1, 0, 1).contains(point));
                        EXPECT_GE(point.x(), rail.track.left() - 1.0);
                        EXPECT_LE(point.x(), rail.track.right() + 1.0);
                    }
                }
            }
        }
    }
}

TEST(RackGeometry, APegIsFoundWhereItIsDrawn)
{
    const RackModel model = rackOf(3, 4);
    const RackGeometry geometry = rackGeometry(model, {1000.0, 600.0, 0.0, true, 18.0});
    const auto hit = pegAt(geometry, geometry.rails[2].places[3] + QPointF(2, 1), true);
    ASSERT_TRUE(hit);
    EXPECT_EQ(hit->rail, 2U);
    EXPECT_FALSE(pegAt(geometry, QPointF(1, 1), true));
}

TEST(RackGeometry, PegsStandAtTheirValues)
{
    const RackModel model = rackOf(1, 5);
    const RackGeometry geometry = rackGeometry(model, {1000.0, 600.0, 0.0, true, 18.0});
    for (std::size_t p = 0; p < 5; ++p)
        EXPECT_NEAR(geometry.rails[0].places[p].x(), geometry.xOf(*model.rails[0].pegs[p].value), 1e-9);
}

// The window's own model: the word stands as the test writes it, and what is no word as it was typed.
TEST(TypedRowsModel, WordsAreTakenAsTheTestWritesThem)
{
    TypedRowsModel model([] { return std::string("2026-06-01T08:00:00Z"); });
    model.show(reductionOf(Method::ServiceTrial), {}, {});
    EXPECT_EQ(model.units()[0].symbol, "h");
    for (const auto &[typed, stands] :
         {std::pair{"failed", "failed"}, {"FAILED", "failed"}, {"serv", "serves"}, {"perhaps", "perhaps"}}) {
        ASSERT_TRUE(model.setData(model.index(0, 1), QString::fromUtf8(typed)));
        EXPECT_EQ(model.data(model.index(0, 1), Qt::DisplayRole).toString(), QString::fromUtf8(stands));
    }
}

} // namespace inchpeg::app
