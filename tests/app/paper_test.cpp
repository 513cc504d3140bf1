// SPDX-License-Identifier: GPL-3.0-or-later
// What is printed for the workshop: the run sheet's words and pages.
#include "app/paper/run_sheet.h"
#include "core/planning/cautions.h"
#include "core/planning/plates.h"
#include "support/study_builder.h"

#include <QFile>
#include <QImage>
#include <QPainter>
#include <QTemporaryDir>
#include <QTextDocument>

#include <gtest/gtest.h>

namespace inchpeg::app
{

namespace
{

/// Rails of six pieces each, on the usual workshop.
RunSheetContent planned(int rails)
{
    test::StudyBuilder builder;
    Study &study = builder.study;
    study.question = "Does <b>heat</b> & fan matter?";
    firstTest(study).method = Method::LayerAdhesion;
    firstTest(study).setup.shape = *findShape("standing-mini");
    study.plan.locked = {{"walls", "4"}};
    for (int i = 0; i < rails; ++i)
        builder.rail(std::to_string(200 + 5 * i), {}, Orientation::Standing, 6);
    study.reference = study.conditions.front().id;
    Workshop workshop = usualWorkshop();
    workshop.labPrefix = "KRT";
    return {study, layOutPlates(study, workshop), workshop, Notation()};
}

QString wordsOf(const RunSheetContent &content)
{
    return runSheet(runSheetParts(content))->toPlainText();
}

/// How much of a page is ink.
double inkOf(const QTextDocument &sheet, int page)
{
    constexpr int kDotsPerMm = 3;
    QImage image(210 * kDotsPerMm, 297 * kDotsPerMm, QImage::Format_Grayscale8);
    image.fill(Qt::white);
    QPainter painter(&image);
    painter.scale(kDotsPerMm, kDotsPerMm);
    paintRunSheetPage(painter, sheet, page);
    painter.end();
    int dark = 0;
    for (int y = 0; y < image.height(); ++y) {
        const uchar *line = image.constScanLine(y);
        for (int x = 0; x < image.width(); ++x)
            dark += line[x] < 128 ? 1 : 0;
    }
    return static_cast<double>(dark) / (image.width() * image.height());
}

} // namespace

TEST(RunSheet, SaysWhatIsAskedHeldAndTestedWhen)
{
    const RunSheetContent content = planned(3);
    const QString words = wordsOf(content);
    EXPECT_TRUE(words.contains(QStringLiteral("Does <b>heat</b> & fan matter?")))
        << "typed signs are signs, not mark-up: " << words.left(200).toStdString();
    EXPECT_TRUE(words.contains(QStringLiteral("walls 4")));
    EXPECT_TRUE(words.contains(QStringLiteral("(reference)")));
    for (const Caution &caution : cautionsOf(content.study))
        EXPECT_TRUE(words.contains(QString::fromUtf8(caution.text.data()))) << caution.text;
    for (const Piece &piece : content.study.pieces)
        EXPECT_GE(words.count(QString::fromStdString(piece.code)), 2)
            << piece.code << ": on its plate and in the order of testing";
    for (const Plate &plate : content.layout.plates)
        EXPECT_TRUE(words.contains(QStringLiteral("Plate %1").arg(plate.number)));
}

TEST(RunSheet, TestsInTheOrderThatWasDrawn)
{
    const RunSheetContent content = planned(3);
    const QString words = wordsOf(content);
    qsizetype from = words.lastIndexOf(QStringLiteral("Plate "));
    ASSERT_GE(from, 0);
    std::vector<qsizetype> places;
    for (const PieceId id : content.layout.testOrder) {
        const QString code = QString::fromStdString(findPiece(content.study, id)->code);
        const qsizetype at = words.lastIndexOf(QLatin1Char('\n') + code + QLatin1Char('\n'));
        ASSERT_GE(at, 0) << code.toStdString();
        places.push_back(at);
    }
    EXPECT_TRUE(std::is_sorted(places.begin(), places.end()));
}

TEST(RunSheet, EveryPageHasInkAndManyPlatesMakeManyPages)
{
    const auto small = runSheet(runSheetParts(planned(2)));
    const auto large = runSheet(runSheetParts(planned(16)));
    EXPECT_GT(large->pageCount(), small->pageCount());
    for (int page = 0; page < large->pageCount(); ++page) {
        const double ink = inkOf(*large, page);
        EXPECT_GT(ink, 0.0005) << "page " << page + 1 << " is empty";
        EXPECT_LT(ink, 0.5) << "page " << page + 1 << " is black";
    }
}

TEST(RunSheet, IsWrittenAsPdfOrRefusedInWords)
{
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("run.pdf"));
    ASSERT_TRUE(writeRunSheet(path, planned(2)));
    QFile file(path);
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    EXPECT_TRUE(file.readAll().startsWith("%PDF-"));
    const Status nowhere = writeRunSheet(folder.filePath(QStringLiteral("no/such/run.pdf")), planned(2));
    ASSERT_FALSE(nowhere);
    EXPECT_EQ(nowhere.error().code, ErrorCode::Storage);
    EXPECT_NE(nowhere.error().message.find("run.pdf"), std::string::npos);
    RunSheetContent bare = planned(2);
    bare.study.pieces.clear();
    bare.layout = layOutPlates(bare.study, bare.workshop);
    EXPECT_FALSE(writeRunSheet(path, bare)) << "a sheet without pieces";
}

} // namespace inchpeg::app
