// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paper/label_sheet.h"

#include "core/planning/lab_code.h"

#include <QFileInfo>
#include <QPainter>
#include <QPdfWriter>
#include <qrencode.h>

#include <algorithm>
#include <memory>

namespace inchpeg::app
{

namespace
{

constexpr double kLabelInch_mm = 25.4;
constexpr int kLabelResolution = 600;
constexpr std::size_t kKeyLines = 44; ///< on a page
constexpr int kQuietModules = 2;      ///< of white around the code; the label's own white adds to it

/// Draws text of this height in millimetres into a rectangle of millimetres, narrower where it does not fit.
void drawText(QPainter &painter, const QRectF &rect, const QString &text, double height_mm, bool bold)
{
    constexpr int kUnits = 100; ///< the font is set large and scaled down, so that hinting does no harm
    QFont font(QStringLiteral("Noto Sans"));
    font.setPixelSize(kUnits);
    font.setBold(bold);
    const QFontMetricsF metrics(font);
    const double scale = height_mm / kUnits;
    const double width = metrics.horizontalAdvance(text) * scale;
    const double narrow = width > rect.width() ? std::max(0.55, rect.width() / width) : 1.0;
    painter.save();
    painter.setClipRect(rect);
    painter.translate(rect.left(), rect.top());
    painter.scale(scale * narrow, scale);
    painter.setFont(font);
    painter.drawText(QPointF(0.0, metrics.ascent() * 0.86), text);
    painter.restore();
}

} // namespace

std::vector<PieceLabel> labelsOf(const Study &study, const Workshop &workshop, LabelKind kind)
{
    std::vector<PieceLabel> labels;
    for (const Piece &piece : study.pieces) {
        if (kind == LabelKind::Blind) {
            labels.push_back({QString::fromStdString(blindCode(workshop.labPrefix, piece.id)), {}, {}});
            continue;
        }
        const Condition &condition = *findCondition(study, piece.condition);
        labels.push_back({QString::fromStdString(labCode(workshop.labPrefix, piece.id)),
                          QString::fromStdString(piece.code),
                          QString::fromStdString(railTitle(study, condition))});
    }
    if (kind == LabelKind::Blind)
        std::sort(labels.begin(), labels.end(),
                  [](const PieceLabel &a, const PieceLabel &b) { return a.code < b.code; });
    return labels;
}

BlindKey::BlindKey(const Study &study, const Workshop &workshop)
    : m_title(QObject::tr("Key to the blind labels: %1").arg(QString::fromStdString(study.question)))
{
    for (const Piece &piece : study.pieces)
        m_lines.push_back({QString::fromStdString(blindCode(workshop.labPrefix, piece.id)),
                           QString::fromStdString(piece.code),
                           QString::fromStdString(railTitle(study, *findCondition(study, piece.condition)))});
    std::sort(m_lines.begin(), m_lines.end(), [](const Line &a, const Line &b) { return a.code < b.code; });
}

int BlindKey::pageCount() const
{
    return static_cast<int>((m_lines.size() + kKeyLines - 1) / kKeyLines);
}

void BlindKey::paintPage(QPainter &painter, int page) const
{
    constexpr double kLeft_mm = 20.0;
    constexpr double kTop_mm = 18.0;
    constexpr double kLine_mm = 5.6;
    constexpr double kText_mm = 4.2;
    painter.setPen(Qt::black);
    drawText(painter, QRectF(kLeft_mm, kTop_mm, 170.0, 7.0), m_title, 5.0, true);
    drawText(painter, QRectF(kLeft_mm, kTop_mm + 7.5, 170.0, 6.0),
             QObject::tr("For the one who hands the pieces out. Keep it from the one who judges."), kText_mm,
             false);
    const std::size_t first = static_cast<std::size_t>(page) * kKeyLines;
    for (std::size_t i = first; i < std::min(m_lines.size(), first + kKeyLines); ++i) {
        const double y = kTop_mm + 17.0 + kLine_mm * static_cast<double>(i - first);
        drawText(painter, QRectF(kLeft_mm, y, 30.0, kLine_mm), m_lines[i].code, kText_mm, true);
        drawText(painter, QRectF(kLeft_mm + 32.0, y, 16.0, kLine_mm), m_lines[i].piece, kText_mm, true);
        drawText(painter, QRectF(kLeft_mm + 50.0, y, 120.0, kLine_mm), m_lines[i].rail, kText_mm, false);
    }
}

bool paintQrCode(QPainter &painter, const QRectF &square, const QString &text)
{
    const std::unique_ptr<QRcode, void (*)(QRcode *)> code(
        QRcode_encodeString8bit(text.toUtf8().constData(), 0, QR_ECLEVEL_M), QRcode_free);
    if (!code)
        return false;
    const int modules = code->width + 2 * kQuietModules;
    const double side = square.width() / modules;
    painter.save();
    painter.fillRect(square, Qt::white);
    painter.setPen(Qt::NoPen);
    painter.setBrush(Qt::black);
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (int row = 0; row < code->width; ++row) {
        // Runs of black as one rectangle: no hairlines between them on paper.
        for (int column = 0; column < code->width;) {
            int end = column;
            while (end < code->width && (code->data[row * code->width + end] & 1U) != 0)
                ++end;
            if (end > column)
                painter.drawRect(QRectF(square.left() + (column + kQuietModules) * side,
                                        square.top() + (row + kQuietModules) * side, (end - column) * side,
                                        side));
            column = std::max(end, column + 1);
        }
    }
    painter.restore();
    return true;
}

void paintLabel(QPainter &painter, const QRectF &label, const PieceLabel &content)
{
    const QRectF inner = label.adjusted(1.2, 1.2, -1.2, -1.2);
    const double side = std::min(inner.height(), 0.46 * inner.width());
    paintQrCode(painter, QRectF(inner.left(), inner.center().y() - 0.5 * side, side, side), content.code);
    const QRectF words(inner.left() + side + 1.0, inner.top(), inner.width() - side - 1.0, inner.height());
    painter.setPen(Qt::black);
    const double unit = std::min(words.height() / 4.6, 0.24 * words.width());
    if (content.piece.isEmpty()) { // blind: the code alone, as large as it goes
        drawText(painter, QRectF(words.left(), words.top() + 1.2 * unit, words.width(), 2.2 * unit),
                 content.code, 1.7 * unit, true);
        return;
    }
    drawText(painter, QRectF(words.left(), words.top() + 0.15 * unit, words.width(), 1.5 * unit),
             content.code, 1.15 * unit, true);
    drawText(painter, QRectF(words.left(), words.top() + 1.6 * unit, words.width(), 1.7 * unit),
             content.piece, 1.35 * unit, true);
    drawText(painter, QRectF(words.left(), words.top() + 3.35 * unit, words.width(), 1.25 * unit),
             content.rail, 0.85 * unit, false);
}

int sheetCount(std::size_t labels, const LabelStock &stock)
{
    const auto each = static_cast<std::size_t>(stock.columns) * static_cast<std::size_t>(stock.rows);
    return static_cast<int>((labels + each - 1) / each);
}

void paintLabelSheet(QPainter &painter, const std::vector<PieceLabel> &labels, const LabelStock &stock,
                     int sheet, bool outlines)
{
    const auto each = static_cast<std::size_t>(stock.columns) * static_cast<std::size_t>(stock.rows);
    const std::size_t first = static_cast<std::size_t>(sheet) * each;
    for (std::size_t i = first; i < std::min(labels.size(), first + each); ++i) {
        const auto column = static_cast<double>((i - first) % static_cast<std::size_t>(stock.columns));
        const auto row = static_cast<double>((i - first) / static_cast<std::size_t>(stock.columns));
        const QRectF at(stock.left_mm + column * stock.pitchX_mm, stock.top_mm + row * stock.pitchY_mm,
                        stock.width_mm, stock.height_mm);
        if (outlines) {
            painter.setPen(QPen(QColor(0xBB, 0xBB, 0xBB), 0.15));
            painter.setBrush(Qt::NoBrush);
            painter.drawRoundedRect(at, 1.0, 1.0);
        }
        paintLabel(painter, at, labels[i]);
    }
}

Status writeLabelSheets(const QString &path, const Study &study, const Workshop &workshop, LabelKind kind)
{
    const std::vector<PieceLabel> labels = labelsOf(study, workshop, kind);
    if (labels.empty())
        return invalidArgument("there are no pieces to label yet; make rails first");
    QPdfWriter writer(path);
    writer.setResolution(kLabelResolution);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setTitle(QStringLiteral("Labels: ") + QString::fromStdString(study.question));
    writer.setCreator(QStringLiteral("Inch Peg"));
    QPainter painter;
    if (!painter.begin(&writer))
        return Error{ErrorCode::Storage, path.toStdString() + ": cannot be written", {}};
    painter.scale(kLabelResolution / kLabelInch_mm, kLabelResolution / kLabelInch_mm);
    const int sheets = sheetCount(labels.size(), workshop.labels);
    for (int sheet = 0; sheet < sheets; ++sheet) {
        if (sheet > 0)
            writer.newPage();
        paintLabelSheet(painter, labels, workshop.labels, sheet, false);
    }
    const BlindKey key(study, workshop);
    for (int page = 0; kind == LabelKind::Blind && page < key.pageCount(); ++page) {
        writer.newPage();
        key.paintPage(painter, page);
    }
    painter.end();
    if (QFileInfo(path).size() == 0)
        return Error{ErrorCode::Storage, path.toStdString() + ": cannot be written", {}};
    return ok();
}

} // namespace inchpeg::app
