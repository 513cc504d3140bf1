// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/response_painter.h"

#include "app/rack/rack_painter.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kPegRadius = 5.0;
constexpr double kPadding = 12.0;
/// Where the small rail lies in its cell, as a share of the height.
constexpr double kGrooveAt = 0.32;

QString responseText(const char *text)
{
    return QCoreApplication::translate("ResponseTable", text);
}

QString responseUtf8(std::string_view text)
{
    return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

QFont scaled(const QFont &font, double scale, QFont::Weight weight = QFont::Normal)
{
    QFont out = font;
    out.setPointSizeF(font.pointSizeF() * scale);
    out.setWeight(weight);
    return out;
}

/// What stands before a difference, so that it is not told by its sign alone.
QString signOf(Standing standing)
{
    switch (standing) {
    case Standing::Higher:
        return QStringLiteral("▲ ");
    case Standing::Lower:
        return QStringLiteral("▼ ");
    case Standing::Alike:
        return QStringLiteral("= ");
    case Standing::NotToldApart:
    case Standing::TooFew:
    case Standing::NoScatter:
        return QStringLiteral("? ");
    default:
        return {};
    }
}

/// What is said in place of a difference.
QString wordOf(Standing standing)
{
    switch (standing) {
    case Standing::Reference:
        return responseText("reference");
    case Standing::NoResult:
        return responseText("no result");
    case Standing::Listed:
        return responseText("listed");
    case Standing::Bound:
        return responseText("at least");
    case Standing::OtherKind:
        return responseText("printed otherwise");
    case Standing::OtherBreak:
        return responseText("broke otherwise");
    default:
        return {};
    }
}

void paintPegs(QPainter &painter, const ResponseColumn &column, const ResponseCell &cell,
               const AxisScale &scale, QRectF track, const ResponseLook &look)
{
    const auto xOf = [&](double value) { return track.left() + scale.share(value) * track.width(); };
    const auto isReference = [](const ResponseCell &one) { return one.isReference; };
    const auto reference = std::find_if(column.cells.begin(), column.cells.end(), isReference);
    if (reference != column.cells.end() && reference->mean) {
        const double x = xOf(*reference->mean);
        painter.setPen(QPen(look.theme.accent, 1.0, Qt::DashLine));
        painter.drawLine(QPointF(x, track.top()), QPointF(x, track.bottom()));
    }
    const double y = track.center().y();
    painter.setPen(Qt::NoPen);
    painter.setBrush(look.theme.rail);
    painter.drawRoundedRect(QRectF(track.left() - 4.0, y - 2.5, track.width() + 8.0, 5.0), 2.5, 2.5);
    if (cell.interval) {
        painter.setBrush(look.theme.softInk);
        const double low = std::max(track.left(), xOf(cell.interval->low));
        const double high = std::min(track.right(), xOf(cell.interval->high));
        painter.drawRect(QRectF(low, y - 2.5, std::max(0.0, high - low), 5.0));
    }
    for (const PieceValue &value : cell.values) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(look.theme.sheet); // a rim that tells neighbours apart
        painter.drawEllipse(QPointF(xOf(value.value), y), kPegRadius + 0.8, kPegRadius + 0.8);
        paintPeg(painter, QPointF(xOf(value.value), y), kPegRadius,
                 value.counts() ? PegState::Read : PegState::LeftOut, value.atLeast,
                 value.piece == look.selectedPiece, look.theme);
    }
    if (cell.mean) {
        const double x = xOf(*cell.mean);
        painter.setPen(Qt::NoPen);
        painter.setBrush(look.theme.ink);
        painter.drawPolygon(
            QPolygonF({QPointF(x, y + 5.0), QPointF(x - 4.5, y + 12.0), QPointF(x + 4.5, y + 12.0)}));
    }
}

} // namespace

void paintResponseKey(QPainter &painter, QRectF area, const ResponseLook &look)
{
    const QFont small = scaled(look.font, 0.88);
    painter.setFont(small);
    painter.setPen(look.theme.softInk);
    const QRectF place(kResponseMargin, area.bottom() - 34.0, area.width() - 2.0 * kResponseMargin, 24.0);
    painter.drawText(
        place, Qt::AlignLeft | Qt::AlignVCenter,
        QFontMetricsF(small).elidedText(
            responseText("▲ above, ▼ below the reference (%1)   = as good for the decision   ? not "
                         "told apart   dashed line: mean of the reference   a click makes a response large")
                .arg(look.confidence),
            Qt::ElideRight, place.width()));
}

void paintResponseHead(QPainter &painter, QRectF place, const QString &test, const ResponseColumn &column,
                       const AxisScale &scale, const ResponseLook &look)
{
    const QFont small = scaled(look.font, 0.88);
    const QFont bold = scaled(look.font, 0.94, QFont::DemiBold);
    const QRectF text = place.adjusted(kPadding, 6.0, -2.0, 0.0);
    const double line = QFontMetricsF(look.font).lineSpacing();
    const auto draw = [&](const QFont &with, const QColor &ink, double top, const QString &what) {
        painter.setFont(with);
        painter.setPen(ink);
        painter.drawText(QRectF(text.left(), text.top() + top, text.width(), line),
                         Qt::AlignLeft | Qt::AlignVCenter,
                         QFontMetricsF(with).elidedText(what, Qt::ElideRight, text.width()));
    };
    draw(small, look.theme.softInk, 0.0, test);
    painter.setFont(bold);
    painter.setPen(look.theme.ink);
    painter.drawText(QRectF(text.left(), text.top() + line, text.width(), 2.0 * line),
                     Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                     responseUtf8(column.response.property.label));
    const auto number = [&](double value) {
        const Notation &notation = look.notation;
        return responseUtf8(
            notation.plain(notation.unitOf(column.response.property.dimension).fromWorking(value), 4));
    };
    const bool anything = std::any_of(column.cells.begin(), column.cells.end(),
                                      [](const ResponseCell &cell) { return !cell.values.empty(); });
    const QString range =
        anything ? responseText("%1–%2").arg(number(scale.low), number(scale.high)) : QString();
    draw(small, look.theme.softInk, 3.0 * line,
         (range + QLatin1Char(' ') + QString::fromStdString(column.unit)).trimmed());
    if (column.response.property.better == Better::Lower)
        draw(small, look.theme.softInk, 4.0 * line, responseText("less is better"));
}

void paintResponseLabel(QPainter &painter, QRectF place, const ResponseRail &rail, const ResponseLook &look)
{
    const QFont bold = scaled(look.font, kResponseTitleScale, QFont::DemiBold);
    const QFont small = scaled(look.font, 0.88);
    const QRectF text = place.adjusted(kResponseMargin, 0.0, -6.0, 0.0);
    const double line = QFontMetricsF(bold).lineSpacing();
    const double top = text.center().y() - (rail.isReference ? line : 0.5 * line);
    painter.setFont(bold);
    painter.setPen(look.theme.ink);
    painter.drawText(QRectF(text.left(), top, text.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
                     QFontMetricsF(bold).elidedText(rail.title, Qt::ElideRight, text.width()));
    if (rail.isReference) {
        painter.setFont(small);
        painter.setPen(look.theme.accent);
        painter.drawText(QRectF(text.left(), top + line, text.width(), line), Qt::AlignLeft,
                         responseText("reference"));
    }
    painter.setPen(QPen(look.theme.line, 1.0));
    painter.drawLine(place.bottomLeft(), place.bottomRight());
}

void paintResponseCell(QPainter &painter, QRectF place, const ResponseColumn &column, std::size_t rail,
                       const AxisScale &scale, const ResponseLook &look)
{
    const ResponseCell &cell = column.cells[rail];
    if (look.isChosen) {
        painter.setPen(QPen(look.theme.accent, 2.0));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(place.adjusted(2.0, 2.0, -2.0, -2.0));
    }
    painter.setPen(QPen(look.theme.line, 1.0));
    painter.drawLine(place.bottomLeft(), place.bottomRight());
    const double groove = place.top() + kGrooveAt * place.height();
    const double half = std::min(groove - place.top() - 3.0, 16.0);
    const QRectF track(place.left() + kPadding, groove - half, place.width() - 2.0 * kPadding - 6.0,
                       2.0 * half);
    paintPegs(painter, column, cell, scale, track, look);

    const QFont bold = scaled(look.font, 0.96, QFont::DemiBold);
    const QFont small = scaled(look.font, 0.92);
    const double line = QFontMetricsF(bold).lineSpacing();
    const QRectF text(track.left(), place.bottom() - 2.0 * line - 3.0, place.right() - track.left() - 2.0,
                      line);
    const Standing standing = cell.verdict.standing;
    const bool isClear = standing == Standing::Higher || standing == Standing::Lower;
    const QString difference = cell.verdict.difference.empty()
                                   ? wordOf(standing)
                                   : signOf(standing) + responseUtf8(cell.verdict.difference);
    painter.setFont(bold);
    painter.setPen(look.theme.ink);
    painter.drawText(text, Qt::AlignLeft | Qt::AlignVCenter, responseUtf8(cell.meanText));
    const QFont &with = isClear ? bold : small;
    painter.setFont(with);
    painter.setPen(isClear ? look.theme.ink : look.theme.softInk);
    painter.drawText(text.translated(0.0, line), Qt::AlignLeft | Qt::AlignVCenter,
                     QFontMetricsF(with).elidedText(difference, Qt::ElideRight, text.width()));
}

} // namespace inchpeg::app
