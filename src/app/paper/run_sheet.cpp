// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paper/run_sheet.h"

#include "app/paper/plate_pictures.h"
#include "core/planning/cautions.h"
#include "core/planning/lab_code.h"
#include "core/planning/print_estimate.h"

#include <QAbstractTextDocumentLayout>
#include <QCoreApplication>
#include <QFileInfo>
#include <QPainter>
#include <QPdfWriter>
#include <QTextDocument>
#include <QUrl>

namespace inchpeg::app
{

namespace
{

constexpr int kSheetResolution = 300;
constexpr double kSheetInch_mm = 25.4;
constexpr QSizeF kText_mm{182.0, 262.0};       ///< of A4 within the margins, the page number below
constexpr double kDots = 96.0 / kSheetInch_mm; ///< of the document in a millimetre, whatever the screen
constexpr double kMargin_mm = 14.0;
constexpr double kPlatePicture = 216.0; ///< wide, in dots of the document
constexpr double kPlateWords = 44.0;    ///< its heading and the gap to the next one
constexpr double kPictureRatio = 3.0;   ///< picture points for each of the document's

QString runSheetText(const char *text)
{
    return QCoreApplication::translate("RunSheet", text);
}

QString escaped(const std::string &text)
{
    return QString::fromStdString(text).toHtmlEscaped();
}

QString row(const QStringList &cells, const char *tag = "td")
{
    QString html = QStringLiteral("<tr>");
    for (const QString &cell : cells)
        html += QStringLiteral("<%1>%2</%1>").arg(QLatin1String(tag), cell);
    return html + QStringLiteral("</tr>");
}

QString table(const QStringList &head, const QStringList &rows)
{
    return QStringLiteral("<table border='1' cellspacing='0' cellpadding='3' width='100%'>") +
           row(head, "th") + rows.join(QString()) + QStringLiteral("</table>");
}

QString settingsHtml(const Study &study, const Workshop &workshop)
{
    QStringList held;
    for (const LockedSetting &setting : study.plan.locked)
        held << escaped(setting.name) + QStringLiteral(" <b>") + escaped(setting.value) +
                    QStringLiteral("</b>");
    QString html =
        QStringLiteral("<p>") + runSheetText("Held on all rails: ") +
        (held.isEmpty() ? runSheetText("nothing is written down") : held.join(QStringLiteral(", "))) +
        QStringLiteral("</p>");
    for (const MaterialCare &care : materialCare(study, workshop))
        html += QStringLiteral("<p>") + escaped(care.sentence) + QStringLiteral("</p>");
    return html;
}

QString railsHtml(const Study &study)
{
    QStringList rows;
    for (const Condition &condition : study.conditions) {
        const std::vector<const Piece *> pieces = piecesOf(study, condition.id);
        rows << row({escaped(levelText(study, condition)) +
                         (condition.id == study.reference ? runSheetText(" (reference)") : QString()),
                     QString::fromUtf8(orientationName(condition.orientation)), escaped(condition.material),
                     pieces.empty() ? QString()
                                    : escaped(pieces.front()->code) + QStringLiteral(" – ") +
                                          escaped(pieces.back()->code)});
    }
    return table({runSheetText("Rail"), runSheetText("Printed"), runSheetText("Material, lot"),
                  runSheetText("Pieces")},
                 rows);
}

QString platesHtml(const Study &study, const PlateLayout &layout)
{
    // A table is not kept together over a page's end, so the pages are ended here.
    const double each = kPlatePicture * layout.bedDepth_mm / layout.bedWidth_mm + kPlateWords;
    const int perPage = std::max(1, static_cast<int>((kText_mm.height() * kDots - kPlateWords) / each));
    QString html;
    int onPage = 0;
    for (const Plate &plate : layout.plates) {
        const bool full = onPage == perPage;
        onPage = full ? 1 : onPage + 1;
        QStringList codes;
        for (const PlacedPiece &placed : plate.pieces)
            codes << escaped(findPiece(study, placed.piece)->code);
        html += QStringLiteral("<h3%1>").arg(full ? QStringLiteral(" style='page-break-before:always'")
                                                  : QString()) +
                runSheetText("Plate %1").arg(plate.number) +
                (plate.settings.empty() ? QString() : QStringLiteral(": ") + escaped(plate.settings)) +
                (plate.printedAt.empty() ? QString() : runSheetText(" – printed")) + QStringLiteral("</h3>");
        html += QStringLiteral(
                    "<table width='100%'><tr><td width='45%'><img src='plate:%1' width='%2'/></td><td>")
                    .arg(plate.number)
                    .arg(kPlatePicture);
        html += runSheetText("%1 pieces, about %2 g and %3 min. Round %4.")
                    .arg(plate.pieces.size())
                    .arg(plate.grams, 0, 'f', 0)
                    .arg(plate.minutes, 0, 'f', 0)
                    .arg(plate.round) +
                QStringLiteral("<br>") + codes.join(QStringLiteral(", ")) + QStringLiteral("<br><br>") +
                runSheetText("Printed on: ____________  by: ____________<br>Spool, lot: "
                             "______________________<br>Plate mass: "
                             "____________ g<br>What happened: "
                             "______________________<br>____________________________________"
                             "__") +
                QStringLiteral("</td></tr></table>");
    }
    return html;
}

QString testsHtml(const Study &study, const PlateLayout &layout, const Workshop &workshop)
{
    std::map<PieceId, int> plateOf;
    for (const Plate &plate : layout.plates) {
        for (const PlacedPiece &placed : plate.pieces)
            plateOf[placed.piece] = plate.number;
    }
    QStringList rows;
    int place = 0;
    for (const PieceId id : layout.testOrder) {
        const Piece &piece = *findPiece(study, id);
        const Condition &condition = *findCondition(study, piece.condition);
        rows << row({QString::number(++place),
                     QStringLiteral("<b>") + escaped(piece.code) + QStringLiteral("</b>"),
                     escaped(labCode(workshop.labPrefix, id)), escaped(railTitle(study, condition)),
                     QString::number(plateOf[id]), QString::fromUtf8(methodName(piece.test).data()),
                     QStringLiteral("&nbsp;"), QStringLiteral("&nbsp;"), QStringLiteral("&nbsp;")});
    }
    return table({runSheetText("No."), runSheetText("Piece"), runSheetText("Label"), runSheetText("Rail"),
                  runSheetText("Plate"), runSheetText("Test"), runSheetText("Section in mm"),
                  runSheetText("Mass in g"), runSheetText("Result, break, remarks")},
                 rows);
}

QString cautionsHtml(const Study &study)
{
    QString html = QStringLiteral("<ul>");
    for (const Caution &caution : cautionsOf(study))
        html += QStringLiteral("<li>") + QString::fromUtf8(caution.text.data()).toHtmlEscaped() +
                QStringLiteral("</li>");
    html += QStringLiteral("</ul><p>") +
            runSheetText("The rig's manual, local codes and qualified people go before anything said here.") +
            QStringLiteral("</p>");
    return html;
}

QImage platePicture(const Study &study, const PlateLayout &layout, const Plate &plate)
{
    const double depth = kPlatePicture * layout.bedDepth_mm / layout.bedWidth_mm;
    QImage image(
        QSize(static_cast<int>(kPlatePicture * kPictureRatio), static_cast<int>(depth * kPictureRatio)),
        QImage::Format_ARGB32);
    image.fill(Qt::white);
    QPainter painter(&image);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.scale(kPictureRatio, kPictureRatio);
    QFont font(QStringLiteral("Noto Sans"));
    font.setPixelSize(13);
    painter.setFont(font);
    paintPlate(painter, QRectF(1.0, 1.0, kPlatePicture - 2.0, depth - 2.0), study, layout, plate, {},
               paperTheme());
    return image;
}

QString runSheetHtml(const RunSheetContent &content)
{
    const Study &study = content.study;
    const PlannedTest test = plannedTests(study).front();
    QString html = QStringLiteral("<h1>") + escaped(study.question) + QStringLiteral("</h1>");
    html += QStringLiteral("<p>") +
            runSheetText("By %1 we measure %2. A difference of %3 matters. Seed of the orders: %4.")
                .arg(QString::fromUtf8(methodName(methodOf(study)).data()),
                     QString::fromUtf8(test.property.label.data()),
                     QString::fromStdString(content.notation.plain(100.0 * study.smallestDifference, 3)) +
                         QStringLiteral(" %"))
                .arg(study.plan.print.seed) +
            QStringLiteral("</p>");
    html += railsHtml(study) + settingsHtml(study, content.workshop);
    html += QStringLiteral("<h2>") + runSheetText("Cautions") + QStringLiteral("</h2>") + cautionsHtml(study);
    html += QStringLiteral("<h2 style='page-break-before:always'>") +
            runSheetText("Plates, in the order of printing") + QStringLiteral("</h2>") +
            platesHtml(study, content.layout);
    html += QStringLiteral("<h2 style='page-break-before:always'>") + runSheetText("Order of testing") +
            QStringLiteral("</h2><p>") +
            runSheetText("Usual speed: %1. Zero the gauge before each piece.")
                .arg(QString::fromUtf8(factsOf(methodOf(study)).speed.data())) +
            QStringLiteral("</p>") + testsHtml(study, content.layout, content.workshop);
    return html;
}

} // namespace

RunSheetParts runSheetParts(const RunSheetContent &content)
{
    RunSheetParts parts{runSheetHtml(content), {}};
    for (const Plate &plate : content.layout.plates)
        parts.plates[plate.number] = platePicture(content.study, content.layout, plate);
    return parts;
}

std::unique_ptr<QTextDocument> runSheet(const RunSheetParts &parts)
{
    auto document = std::make_unique<QTextDocument>();
    QFont font(QStringLiteral("Noto Sans"));
    font.setPixelSize(12);
    document->setDefaultFont(font);
    document->setDefaultStyleSheet(QStringLiteral(
        "h1 { font-size: 20px; } h2 { font-size: 16px; } h3 { font-size: 13px; } th { text-align: left; }"));
    for (const auto &[number, picture] : parts.plates)
        document->addResource(QTextDocument::ImageResource, QUrl(QStringLiteral("plate:%1").arg(number)),
                              picture);
    document->setDocumentMargin(0.0);
    document->setHtml(parts.html);
    document->setPageSize(kText_mm * kDots);
    return document;
}

void paintRunSheetPage(QPainter &painter, const QTextDocument &sheet, int page)
{
    const QSizeF size = sheet.pageSize();
    const QRectF shown(0.0, page * size.height(), size.width(), size.height());
    painter.save();
    painter.translate(kMargin_mm, kMargin_mm);
    painter.scale(1.0 / kDots, 1.0 / kDots);
    painter.setFont(sheet.defaultFont());
    painter.setPen(Qt::black);
    painter.drawText(QRectF(0.0, size.height() + 4.0, size.width(), 18.0), Qt::AlignRight,
                     QStringLiteral("%1 / %2").arg(page + 1).arg(sheet.pageCount()));
    painter.translate(0.0, -shown.top());
    painter.setClipRect(shown, Qt::IntersectClip);
    QAbstractTextDocumentLayout::PaintContext context;
    context.palette.setColor(QPalette::Text, Qt::black);
    context.clip = shown;
    sheet.documentLayout()->draw(&painter, context);
    painter.restore();
}

Status writeRunSheet(const QString &path, const RunSheetContent &content)
{
    if (content.study.pieces.empty())
        return invalidArgument("there are no pieces yet; make rails first");
    QPdfWriter writer(path);
    writer.setResolution(kSheetResolution);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setTitle(QStringLiteral("Run sheet: ") + QString::fromStdString(content.study.question));
    writer.setCreator(QStringLiteral("Inch Peg"));
    const std::unique_ptr<QTextDocument> sheet = runSheet(runSheetParts(content));
    QPainter painter;
    if (!painter.begin(&writer))
        return Error{ErrorCode::Storage, path.toStdString() + ": cannot be written", {}};
    painter.scale(kSheetResolution / kSheetInch_mm, kSheetResolution / kSheetInch_mm);
    for (int page = 0; page < sheet->pageCount(); ++page) {
        if (page > 0)
            writer.newPage();
        paintRunSheetPage(painter, *sheet, page);
    }
    painter.end();
    if (QFileInfo(path).size() == 0)
        return Error{ErrorCode::Storage, path.toStdString() + ": cannot be written", {}};
    return ok();
}

} // namespace inchpeg::app
