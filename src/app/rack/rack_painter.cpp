// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/rack/rack_painter.h"

#include <QCoreApplication>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QTextLayout>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr double kSampleWidth = 30.0;

QFont withWeight(const QFont &font, QFont::Weight weight, double scale = 1.0)
{
    QFont out = font;
    out.setWeight(weight);
    out.setPointSizeF(font.pointSizeF() * scale);
    return out;
}

QColor faded(QColor colour, double alpha)
{
    colour.setAlphaF(static_cast<float>(alpha));
    return colour;
}

/// Draws text over several lines in a rectangle, the last line elided where it does not fit; yields the
/// height used.
double drawWrapped(QPainter &painter, QRectF rect, const QString &text, const QFont &font,
                   const QColor &colour)
{
    if (text.isEmpty() || rect.height() < 1.0)
        return 0.0;
    painter.setFont(font);
    painter.setPen(colour);
    const QFontMetricsF metrics(font);
    double y = 0.0;
    for (const QString &paragraph : text.split(QLatin1Char('\n'))) {
        QTextLayout layout(paragraph, font);
        layout.beginLayout();
        while (true) {
            QTextLine line = layout.createLine();
            if (!line.isValid())
                break;
            line.setLineWidth(rect.width());
            if (y + metrics.lineSpacing() > rect.height() + 1.0)
                break;
            const bool last = y + 2.0 * metrics.lineSpacing() > rect.height() + 1.0;
            QString part = paragraph.mid(line.textStart(), last ? -1 : line.textLength()).trimmed();
            if (last)
                part = metrics.elidedText(part, Qt::ElideRight, rect.width());
            painter.drawText(QPointF(rect.left(), rect.top() + y + metrics.ascent()), part);
            y += metrics.lineSpacing();
            if (last)
                break;
        }
        layout.endLayout();
    }
    return y;
}

double wrappedHeight(const QString &text, const QFont &font, double width)
{
    return text.isEmpty()
               ? 0.0
               : QFontMetricsF(font).boundingRect(QRectF(0, 0, width, 1e4), Qt::TextWordWrap, text).height();
}

class RackPainter
{
public:
    RackPainter(QPainter &painter, const RackModel &model, const RackGeometry &geometry, const RackLook &look,
                const Theme &theme)
        : m_painter(painter), m_model(model), m_geometry(geometry), m_look(look), m_theme(theme),
          m_font(painter.font())
    {
    }

    void paint(QRectF viewport)
    {
        m_painter.setRenderHint(QPainter::Antialiasing);
        m_painter.fillRect(viewport, m_theme.sheet);
        for (std::size_t r = 0; r < m_model.rails.size(); ++r) {
            if (m_geometry.rails[r].row.intersects(viewport))
                paintRailGround(r);
        }
        if (m_look.comparing)
            paintReference(viewport);
        for (std::size_t r = 0; r < m_model.rails.size(); ++r) {
            if (m_geometry.rails[r].row.intersects(viewport))
                paintRail(r);
        }
        if (m_look.comparing) {
            paintScaleBar(viewport);
            paintKey(viewport);
        }
    }

private:
    [[nodiscard]] bool holdsSelection(const RailModel &rail) const
    {
        return std::any_of(rail.pegs.begin(), rail.pegs.end(),
                           [&](const PegModel &peg) { return peg.piece == m_look.selectedPiece; });
    }

    void paintRailGround(std::size_t r)
    {
        const RackGeometry::Rail &lines = m_geometry.rails[r];
        if (holdsSelection(m_model.rails[r])) {
            m_painter.fillRect(lines.row, faded(m_theme.accent, 0.07));
            m_painter.fillRect(QRectF(0, lines.row.top(), 4.0, lines.row.height()), m_theme.accent);
        }
        m_painter.setPen(QPen(m_theme.line, 1.0));
        m_painter.drawLine(QPointF(0, lines.row.bottom()), QPointF(lines.row.right(), lines.row.bottom()));
    }

    /// The reference's mean through all rails, and around it the band of differences that do not matter.
    void paintReference(QRectF viewport)
    {
        const auto reference = std::find_if(m_model.rails.begin(), m_model.rails.end(),
                                            [](const RailModel &rail) { return rail.isReference; });
        if (reference == m_model.rails.end() || !reference->mean || m_geometry.rails.empty())
            return;
        const double top = std::max(m_geometry.scaleBar.bottom(), m_geometry.rails.front().row.top());
        const double bottom = std::min(viewport.bottom(), m_geometry.rails.back().row.bottom());
        const double half = std::abs(*reference->mean) * m_model.smallestDifference;
        const QRectF track(m_geometry.scaleBar.left(), top, m_geometry.scaleBar.width(), bottom - top);
        const QRectF band(m_geometry.xOf(*reference->mean - half), top,
                          m_geometry.xOf(*reference->mean + half) - m_geometry.xOf(*reference->mean - half),
                          bottom - top);
        m_painter.fillRect(band.intersected(track), faded(m_theme.rail, 0.45));
        m_painter.setPen(QPen(m_theme.accent, 1.0, Qt::DashLine));
        const double x = m_geometry.xOf(*reference->mean);
        m_painter.drawLine(QPointF(x, top), QPointF(x, bottom));
    }

    /// Title (over two lines where it is long), then what there is to say about the rail.
    void paintLabel(std::size_t r)
    {
        const RailModel &rail = m_model.rails[r];
        const RackGeometry::Rail &lines = m_geometry.rails[r];
        const bool hidden = m_look.hiddenRails.contains(rail.condition);
        const QFont titleFont = withWeight(m_font, QFont::DemiBold, 1.08);
        const QFont smallFont = withWeight(m_font, QFont::Normal, 0.88);
        const QFontMetricsF metrics(titleFont);
        const double titleHeight = metrics.lineSpacing();
        const double smallHeight = QFontMetricsF(smallFont).lineSpacing();
        const double left = lines.label.left() + (m_look.showCurveSamples ? kSampleWidth + 8.0 : 0.0);
        const double room = lines.label.right() - left - 6.0;
        const double titleLines = metrics.horizontalAdvance(rail.title) > room ? 2.0 : 1.0;
        const double smallLines = 1.0 + static_cast<double>(rail.subtitle.count(QLatin1Char('\n')));
        const double wanted =
            std::min(lines.label.height() - 6.0, titleLines * titleHeight + smallLines * smallHeight);
        const double top = lines.label.top() + 0.5 * (lines.label.height() - wanted);
        if (m_look.showCurveSamples)
            paintCurveSample(QPointF(lines.label.left(), top + 0.5 * titleHeight), static_cast<int>(r),
                             hidden);
        const QRectF title(left, top, room, titleLines * titleHeight);
        drawWrapped(m_painter, title, rail.title, titleFont, hidden ? m_theme.softInk : m_theme.ink);
        const double used = metrics.horizontalAdvance(rail.title) + 8.0;
        const QString reference = QCoreApplication::translate("Rack", "reference");
        if (rail.isReference && used + QFontMetricsF(smallFont).horizontalAdvance(reference) < room) {
            m_painter.setFont(smallFont);
            m_painter.setPen(m_theme.accent);
            m_painter.drawText(QPointF(left + used, top + metrics.ascent()), reference);
        }
        const QRectF small(lines.label.left(), title.bottom(), lines.label.width() - 6.0,
                           top + wanted - title.bottom());
        drawWrapped(m_painter, small, rail.subtitle, smallFont, m_theme.softInk);
    }

    void paintCurveSample(QPointF from, int railIndex, bool hidden)
    {
        QPen pen(hidden ? m_theme.line : railInk(m_theme, railIndex), 2.2);
        if (!railDashes(railIndex).isEmpty())
            pen.setDashPattern(railDashes(railIndex));
        m_painter.setPen(pen);
        m_painter.drawLine(from, from + QPointF(kSampleWidth, 0.0));
    }

    void paintGroove(const RackGeometry::Rail &lines)
    {
        const QRectF groove(lines.track.left() - 4.0, lines.grooveY - 3.5, lines.track.width() + 8.0, 7.0);
        m_painter.setPen(Qt::NoPen);
        m_painter.setBrush(m_theme.rail);
        m_painter.drawRoundedRect(groove, 3.5, 3.5);
    }

    /// On the rail: the interval as a bar, the mean as a mark across it.
    void paintInterval(const RailModel &rail, const RackGeometry::Rail &lines)
    {
        if (!m_look.comparing || !rail.mean)
            return;
        const QRectF track(lines.track.left(), lines.row.top(), lines.track.width(), lines.row.height());
        m_painter.save();
        m_painter.setClipRect(track.adjusted(-6, 0, 6, 0));
        if (rail.interval) {
            const double low = m_geometry.xOf(rail.interval->low);
            const double high = m_geometry.xOf(rail.interval->high);
            m_painter.setPen(Qt::NoPen);
            m_painter.setBrush(m_theme.softInk);
            m_painter.drawRect(QRectF(low, lines.grooveY - 3.5, high - low, 7.0));
            m_painter.setPen(QPen(m_theme.ink, 1.6));
            for (const double x : {low, high})
                m_painter.drawLine(QPointF(x, lines.grooveY - 4.0), QPointF(x, lines.grooveY + 8.0));
        }
        const double x = m_geometry.xOf(*rail.mean);
        m_painter.setPen(Qt::NoPen);
        m_painter.setBrush(m_theme.ink);
        m_painter.drawPolygon(
            QPolygonF({QPointF(x, lines.grooveY - 4.0), QPointF(x - 6.0, lines.grooveY + 12.0),
                       QPointF(x + 6.0, lines.grooveY + 12.0)}));
        m_painter.restore();
    }

    /// Below the rail, clear of the pegs: where the polymer lay in all earlier work, and how far it
    /// scattered.
    void paintAverage(const RailModel &rail, const RackGeometry::Rail &lines)
    {
        if (!m_look.comparing || !rail.average)
            return;
        const double y = lines.grooveY + 11.0;
        const double x = m_geometry.xOf(*rail.average);
        const double left = std::max(lines.track.left(), m_geometry.xOf(*rail.average - rail.averageScatter));
        const double right =
            std::min(lines.track.right(), m_geometry.xOf(*rail.average + rail.averageScatter));
        m_painter.setPen(QPen(m_theme.softInk, 1.2, Qt::DotLine));
        if (right > left)
            m_painter.drawLine(QPointF(left, y), QPointF(right, y));
        drawAverageMark(QPointF(x, y));
    }
    void drawAverageMark(QPointF at)
    {
        m_painter.setPen(QPen(m_theme.softInk, 1.4));
        m_painter.setBrush(m_theme.sheet);
        m_painter.drawPolygon(QPolygonF({at + QPointF(0.0, -5.0), at + QPointF(5.0, 0.0),
                                         at + QPointF(0.0, 5.0), at + QPointF(-5.0, 0.0)}));
    }

    void paintPegs(const RailModel &rail, const RackGeometry::Rail &lines)
    {
        const bool hidden = m_look.hiddenRails.contains(rail.condition);
        m_painter.setOpacity(hidden ? 0.45 : 1.0);
        for (std::size_t p = 0; p < rail.pegs.size(); ++p) {
            const PegModel &peg = rail.pegs[p];
            const QPointF hole = lines.holes[p];
            const bool slides = m_look.comparing && peg.value.has_value();
            if (m_look.comparing && !slides)
                continue; // what has no value yet has no place on the scale
            const QPointF at = slides ? hole + (lines.places[p] - hole) * m_look.slid : hole;
            const bool selected = peg.piece == m_look.selectedPiece;
            const bool isFaint = peg.isOfOtherTest && m_look.dimOtherTests && !selected;
            m_painter.setOpacity(hidden ? 0.45 : isFaint ? 0.3 : 1.0);
            paintPeg(m_painter, at, m_geometry.pegRadius, peg.state, peg.atLeast, selected, m_theme);
            if (!peg.note.isEmpty() && !m_look.comparing)
                paintNote(hole, peg.note);
            if (!m_look.comparing)
                paintSigns(hole, peg);
            if (m_look.dropTarget == peg.piece) {
                m_painter.setBrush(Qt::NoBrush);
                m_painter.setPen(QPen(m_theme.accent, 2.0, Qt::DotLine));
                m_painter.drawEllipse(at, m_geometry.pegRadius + 5.0, m_geometry.pegRadius + 5.0);
            }
        }
        m_painter.setOpacity(1.0);
    }

    /// Its place in the order of testing, small below the hole.
    void paintNote(QPointF hole, const QString &note)
    {
        const QFont small = withWeight(m_font, QFont::Normal, 0.74);
        m_painter.setFont(small);
        m_painter.setPen(m_theme.softInk);
        m_painter.drawText(QRectF(hole.x() - 12.0, hole.y() + m_geometry.pegRadius - 1.0, 24.0, 13.0),
                           Qt::AlignHCenter | Qt::AlignTop, note);
    }

    /// At the shoulders of a peg: a small frame for photos, a small clock while it waits.
    void paintSigns(QPointF hole, const PegModel &peg)
    {
        const double r = m_geometry.pegRadius;
        if (peg.photos > 0) {
            const QRectF frame(hole.x() + 0.6 * r, hole.y() - r - 3.0, 8.0, 6.5);
            m_painter.setPen(QPen(m_theme.ink, 1.2));
            m_painter.setBrush(m_theme.sheet);
            m_painter.drawRect(frame);
            m_painter.drawPoint(frame.center());
        }
        if (peg.waits) {
            const QPointF clock(hole.x() - 0.8 * r, hole.y() - r + 0.5);
            m_painter.setPen(QPen(m_theme.ink, 1.2));
            m_painter.setBrush(m_theme.sheet);
            m_painter.drawEllipse(clock, 4.0, 4.0);
            m_painter.drawLine(clock, clock + QPointF(0.0, -2.5));
            m_painter.drawLine(clock, clock + QPointF(2.0, 0.0));
        }
    }

    void paintPlanLine(const RailModel &rail, const RackGeometry::Rail &lines)
    {
        if (rail.planLine.isEmpty() || m_look.comparing)
            return;
        const QFont small = withWeight(m_font, QFont::Normal, 0.86);
        const QFontMetricsF metrics(small);
        m_painter.setFont(small);
        m_painter.setPen(m_theme.softInk);
        // On a low row the places of testing reach down beside it.
        const bool low = lines.row.height() < 4.4 * metrics.lineSpacing();
        const double width = low ? lines.label.width() - 6.0 : lines.row.right() - lines.label.left() - 12.0;
        m_painter.drawText(QPointF(lines.label.left(), lines.row.bottom() - 6.0),
                           metrics.elidedText(rail.planLine, Qt::ElideRight, width));
    }

    void paintSentence(const RailModel &rail, const RackGeometry::Rail &lines)
    {
        if (!m_look.comparing)
            return;
        const QFont bold = withWeight(m_font, QFont::DemiBold);
        const double width = lines.sentence.width() - 8.0;
        const double lineHeight = QFontMetricsF(m_font).lineSpacing();
        const double meanHeight = rail.meanText.isEmpty() ? 0.0 : lineHeight;
        const double shareHeight = wrappedHeight(rail.shareSentence, m_font, width);
        const double room = lines.sentence.height() - 4.0;
        const double sentenceHeight = std::min(wrappedHeight(rail.sentence, m_font, width),
                                               std::max(lineHeight, room - meanHeight - shareHeight));
        double y = lines.sentence.top() +
                   std::max(2.0, 0.5 * (lines.sentence.height() - meanHeight - sentenceHeight - shareHeight));
        y += drawWrapped(m_painter, QRectF(lines.sentence.left(), y, width, meanHeight), rail.meanText, bold,
                         m_theme.ink);
        y += drawWrapped(m_painter, QRectF(lines.sentence.left(), y, width, sentenceHeight), rail.sentence,
                         m_font, m_theme.ink);
        drawWrapped(m_painter, QRectF(lines.sentence.left(), y, width, lines.sentence.bottom() - y),
                    rail.shareSentence, m_font, m_theme.softInk);
    }

    void paintRail(std::size_t r)
    {
        paintGroove(m_geometry.rails[r]);
        paintLabel(r);
        paintInterval(m_model.rails[r], m_geometry.rails[r]);
        paintAverage(m_model.rails[r], m_geometry.rails[r]);
        paintPegs(m_model.rails[r], m_geometry.rails[r]);
        paintSentence(m_model.rails[r], m_geometry.rails[r]);
        paintPlanLine(m_model.rails[r], m_geometry.rails[r]);
    }

    void paintScaleBar(QRectF viewport)
    {
        const QRectF bar = m_geometry.scaleBar;
        m_painter.fillRect(QRectF(viewport.left(), bar.top(), viewport.width(), bar.height()), m_theme.sheet);
        const QFont small = withWeight(m_font, QFont::Normal, 0.92);
        m_painter.setFont(small);
        const QFontMetricsF metrics(small);
        m_painter.setPen(m_theme.softInk);
        m_painter.drawText(QPointF(12.0, bar.bottom() - 9.0),
                           metrics.elidedText(m_model.scaleTitle, Qt::ElideRight, bar.left() - 30.0));
        m_painter.setPen(QPen(m_theme.ink, 1.0));
        m_painter.drawLine(bar.bottomLeft(), bar.bottomRight());
        for (const double mark : m_geometry.scale.marks()) {
            const double x = m_geometry.xOf(mark);
            m_painter.drawLine(QPointF(x, bar.bottom()), QPointF(x, bar.bottom() - 6.0));
            const auto place = static_cast<qsizetype>(std::lround(mark));
            QString text = place >= 0 && place < m_model.words.size()
                               ? m_model.words[place]
                               : QLocale::c().toString(mark, 'f', m_geometry.scale.decimals);
            text.replace(QLatin1Char('.'), QLatin1Char(m_model.decimalMark));
            m_painter.drawText(QPointF(x - 0.5 * metrics.horizontalAdvance(text), bar.bottom() - 10.0), text);
        }
    }

    /// What the shapes mean, where there is room for it below the rails.
    void paintKey(QRectF viewport)
    {
        if (m_geometry.rails.empty() || viewport.bottom() - m_geometry.rails.back().row.bottom() < 46.0)
            return;
        const QFont small = withWeight(m_font, QFont::Normal, 0.88);
        const QFontMetricsF metrics(small);
        const double y = viewport.bottom() - 20.0;
        double x = 14.0;
        const auto tell = [&](double symbolWidth, const QString &text, auto paintSymbol) {
            paintSymbol(x + 0.5 * symbolWidth);
            x += symbolWidth + 6.0;
            m_painter.setFont(small);
            m_painter.setPen(m_theme.softInk);
            m_painter.drawText(QPointF(x, y + 0.35 * metrics.ascent()), text);
            x += metrics.horizontalAdvance(text) + 22.0;
        };
        const auto peg = [&](PegState state, bool atLeast) {
            return [this, state, atLeast, y](double at) {
                paintPeg(m_painter, QPointF(at - (atLeast ? 8.0 : 0.0), y), 6.5, state, atLeast, false,
                         m_theme);
            };
        };
        const auto tr = [](const char *text) { return QCoreApplication::translate("Rack", text); };
        const auto paintMean = [&](double at) {
            m_painter.setPen(Qt::NoPen);
            m_painter.setBrush(m_theme.softInk);
            m_painter.drawRect(QRectF(at - 11.0, y - 6.0, 22.0, 6.0));
            m_painter.setBrush(m_theme.ink);
            m_painter.drawPolygon(
                QPolygonF({QPointF(at, y - 6.0), QPointF(at - 5.0, y + 7.0), QPointF(at + 5.0, y + 7.0)}));
        };
        if (m_model.words.isEmpty()) // words have no middle
            tell(22.0, m_model.hasMean ? tr("mean and %1 interval").arg(m_model.confidence) : tr("median"),
                 paintMean);
        tell(14.0, tr("piece"), peg(PegState::Read, false));
        const bool anyGiven =
            std::any_of(m_model.rails.begin(), m_model.rails.end(), [](const RailModel &rail) {
                return std::any_of(rail.pegs.begin(), rail.pegs.end(),
                                   [](const PegModel &one) { return one.state == PegState::Given; });
            });
        if (anyGiven)
            tell(14.0, tr("given without its record"), peg(PegState::Given, false));
        tell(14.0, tr("look at it"), peg(PegState::Doubtful, false));
        tell(14.0, tr("left out"), peg(PegState::LeftOut, false));
        tell(30.0, tr("at least this much"), peg(PegState::Read, true));
        const bool hasAverage = std::any_of(m_model.rails.begin(), m_model.rails.end(),
                                            [](const RailModel &rail) { return rail.average.has_value(); });
        if (hasAverage)
            tell(14.0, tr("the polymer in earlier work"),
                 [&](double at) { drawAverageMark(QPointF(at, y)); });
        if (!(m_model.smallestDifference > 0.0))
            return;
        tell(20.0, tr("differences too small to matter"), [&](double at) {
            m_painter.fillRect(QRectF(at - 10.0, y - 8.0, 20.0, 16.0), faded(m_theme.rail, 0.6));
        });
    }

    QPainter &m_painter;
    const RackModel &m_model;
    const RackGeometry &m_geometry;
    const RackLook &m_look;
    const Theme &m_theme;
    QFont m_font;
};

} // namespace

void paintPeg(QPainter &painter, QPointF centre, double radius, PegState state, bool atLeast, bool selected,
              const Theme &theme)
{
    const QColor ink = selected ? theme.accent : theme.ink;
    const bool isTriangle = state == PegState::Failed || state == PegState::Lost;
    const bool filled = state == PegState::Read || state == PegState::Doubtful || state == PegState::Given;
    painter.setPen(QPen(state == PegState::Open ? theme.hole : ink, state == PegState::Open ? 1.6 : 2.0));
    painter.setBrush(filled ? ink
                     : state == PegState::Open
                         ? theme.hole.lighter(theme.kind == ThemeKind::Paper ? 125 : 100)
                         : theme.sheet);
    if (state == PegState::Open) {
        painter.drawEllipse(centre, 0.62 * radius, 0.62 * radius);
    } else if (state == PegState::Given) {
        const double r = radius + 0.5;
        painter.drawPolygon(QPolygonF({centre + QPointF(0, -r), centre + QPointF(r, 0),
                                       centre + QPointF(0, r), centre + QPointF(-r, 0)}));
    } else if (isTriangle) {
        const double r = radius;
        painter.drawPolygon(QPolygonF(
            {centre + QPointF(0, -r), centre + QPointF(r, 0.8 * r), centre + QPointF(-r, 0.8 * r)}));
    } else {
        painter.drawEllipse(centre, radius - 1.0, radius - 1.0);
    }
    if (state == PegState::Measured || state == PegState::Recorded) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(ink);
        const QRectF half(centre.x() - radius + 3.0, centre.y() - radius + 3.0, 2.0 * radius - 6.0,
                          2.0 * radius - 6.0);
        if (state == PegState::Measured)
            painter.drawChord(half, 180 * 16, 180 * 16);
        else
            painter.drawEllipse(centre, 0.42 * radius, 0.42 * radius);
    }
    if (state ==
        PegState::Lost) { // a print that failed has a triangle with a stroke, a record only the triangle
        const double d = 0.45 * radius;
        painter.drawLine(centre + QPointF(-d, 0.45 * radius), centre + QPointF(d, 0.45 * radius));
    }
    if (state == PegState::LeftOut) {
        const double d = 0.6 * radius;
        painter.drawLine(centre + QPointF(-d, d), centre + QPointF(d, -d));
    }
    if (state == PegState::Doubtful) {
        painter.setPen(QPen(theme.sheet, 2.0));
        painter.drawLine(centre + QPointF(0, -0.5 * radius), centre + QPointF(0, 0.1 * radius));
        painter.drawPoint(centre + QPointF(0, 0.5 * radius));
    }
    if (atLeast) {
        painter.setPen(QPen(ink, 2.0));
        painter.setBrush(Qt::NoBrush);
        const double x = centre.x() + radius;
        painter.drawLine(QPointF(x, centre.y()), QPointF(x + 11.0, centre.y()));
        painter.drawPolyline(QPolygonF({QPointF(x + 6.0, centre.y() - 5.0), QPointF(x + 11.0, centre.y()),
                                        QPointF(x + 6.0, centre.y() + 5.0)}));
    }
    if (selected) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme.accent, 2.0));
        painter.drawEllipse(centre, radius + 3.0, radius + 3.0);
    }
}

void paintRack(QPainter &painter, const RackModel &model, const RackGeometry &geometry, const RackLook &look,
               const Theme &theme, QRectF viewport)
{
    RackPainter(painter, model, geometry, look, theme).paint(viewport);
}

} // namespace inchpeg::app
