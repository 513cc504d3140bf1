// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paper/plate_pictures.h"

#include "app/rack/rack_painter.h"

#include <QFontInfo>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <map>

namespace inchpeg::app
{

namespace
{

constexpr double kCellWidth = 206.0;
constexpr double kCellHeight = 214.0;
constexpr double kCaption = 40.0;
constexpr double kPad = 8.0;

QRectF bedRoom(QRectF cell)
{
    return cell.adjusted(kPad, kCaption, -kPad, -kPad);
}

QRectF placedRect(QRectF bed, const PlateLayout &layout, const PlacedPiece &placed, double scale)
{
    return {bed.left() + placed.x_mm * scale,
            bed.top() + (layout.bedDepth_mm - placed.y_mm - placed.depth_mm) * scale, placed.width_mm * scale,
            placed.depth_mm * scale};
}

QRectF bedRect(QRectF room, const PlateLayout &layout, double &scale)
{
    scale = std::min(room.width() / layout.bedWidth_mm, room.height() / layout.bedDepth_mm);
    const QSizeF size(layout.bedWidth_mm * scale, layout.bedDepth_mm * scale);
    return {room.center().x() - 0.5 * size.width(), room.top(), size.width(), size.height()};
}

} // namespace

double paintPlate(QPainter &painter, QRectF room, const Study &study, const PlateLayout &layout,
                  const Plate &plate, PieceId selected, const Theme &theme)
{
    double scale = 1.0;
    const QRectF bed = bedRect(room, layout, scale);
    painter.setPen(QPen(theme.line, 1.0));
    painter.setBrush(theme.ground);
    painter.drawRoundedRect(bed, 3.0, 3.0);
    std::map<ConditionId, int> rail;
    for (std::size_t i = 0; i < study.conditions.size(); ++i)
        rail[study.conditions[i].id] = static_cast<int>(i);
    QFont small = painter.font();
    small.setPixelSize(std::max(1, static_cast<int>(0.8 * QFontInfo(small).pixelSize())));
    painter.save();
    painter.setFont(small);
    const QFontMetricsF metrics(small);
    for (const PlacedPiece &placed : plate.pieces) {
        const Piece *piece = findPiece(study, placed.piece);
        if (piece == nullptr)
            continue;
        const QRectF at = placedRect(bed, layout, placed, scale);
        QColor fill = railInk(theme, rail[piece->condition]);
        fill.setAlphaF(0.28F);
        painter.setPen(
            QPen(placed.piece == selected ? theme.accent : theme.ink, placed.piece == selected ? 2.2 : 1.0));
        painter.setBrush(fill);
        painter.drawRect(at);
        // The code stands in its piece, or beside one that is too small for it.
        const QString code = QString::fromStdString(piece->code);
        const double width = metrics.horizontalAdvance(code);
        painter.setPen(theme.ink);
        if (at.width() > width + 2.0 && at.height() > 0.55 * metrics.height())
            painter.drawText(at, Qt::AlignCenter, code);
        else if (plate.pieces.size() <= 60)
            painter.drawText(QPointF(at.center().x() - 0.5 * width, at.bottom() + metrics.ascent()), code);
    }
    painter.restore();
    return scale;
}

PlatePictures::PlatePictures(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("platePictures"));
    setAccessibleName(tr("Plates in the order of printing"));
    setFocusPolicy(Qt::StrongFocus);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void PlatePictures::set(const Study &study, const PlateLayout &layout, PieceId selected)
{
    m_study = study;
    m_layout = layout;
    m_selected = selected;
    const bool known = std::any_of(layout.plates.begin(), layout.plates.end(),
                                   [this](const Plate &plate) { return plate.number == m_chosen; });
    if (!known) { // the next one to print
        m_chosen = 0;
        for (const Plate &plate : layout.plates) {
            if (m_chosen == 0 && plate.printedAt.empty())
                m_chosen = plate.number;
        }
        if (m_chosen == 0 && !layout.plates.empty())
            m_chosen = layout.plates.back().number;
    }
    updateGeometry();
    update();
}

int PlatePictures::columns(int width) const
{
    return std::max(1, static_cast<int>(width / kCellWidth));
}

QRectF PlatePictures::cell(std::size_t index, int width) const
{
    const auto perRow = static_cast<std::size_t>(columns(width));
    return {static_cast<double>(index % perRow) * kCellWidth,
            static_cast<double>(index / perRow) * kCellHeight, kCellWidth, kCellHeight};
}

QSize PlatePictures::sizeHint() const
{
    return {static_cast<int>(2.0 * kCellWidth), heightForWidth(static_cast<int>(3.0 * kCellWidth))};
}

int PlatePictures::heightForWidth(int width) const
{
    const auto perRow = static_cast<std::size_t>(columns(width));
    const std::size_t rows = (std::max<std::size_t>(1, m_layout.plates.size()) + perRow - 1) / perRow;
    return static_cast<int>(static_cast<double>(rows) * kCellHeight);
}

void PlatePictures::paintEvent(QPaintEvent *event)
{
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QFontMetricsF metrics(font());
    for (std::size_t i = 0; i < m_layout.plates.size(); ++i) {
        const Plate &plate = m_layout.plates[i];
        const QRectF at = cell(i, width());
        if (!at.toRect().intersects(event->rect()))
            continue;
        const bool chosen = plate.number == m_chosen;
        if (chosen) {
            painter.fillRect(at.adjusted(2, 2, -2, -2), theme.sheet);
            painter.setPen(QPen(theme.accent, hasFocus() ? 2.0 : 1.2));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(at.adjusted(2, 2, -2, -2));
        }
        const bool printed = !plate.printedAt.empty();
        paintPeg(painter, QPointF(at.left() + 18.0, at.top() + 15.0), 7.0,
                 printed ? PegState::Read : PegState::Open, false, false, theme);
        painter.setPen(theme.ink);
        QString title = tr("Plate %1").arg(plate.number);
        if (!plate.settings.empty())
            title += QStringLiteral(": ") + QString::fromStdString(plate.settings);
        painter.drawText(QRectF(at.left() + 30.0, at.top() + 5.0, at.width() - 36.0, 18.0), Qt::AlignLeft,
                         metrics.elidedText(title, Qt::ElideRight, at.width() - 40.0));
        painter.setPen(theme.softInk);
        QString words = tr("%1 pieces, %2 g, %3 min")
                            .arg(plate.pieces.size())
                            .arg(plate.grams, 0, 'f', 0)
                            .arg(plate.minutes, 0, 'f', 0);
        if (printed)
            words = tr("printed · ") + words;
        else if (m_study.plan.print.rounds > 1)
            words = tr("round %1 · ").arg(plate.round) + words;
        painter.drawText(QRectF(at.left() + kPad, at.top() + 22.0, at.width() - 2.0 * kPad, 18.0),
                         Qt::AlignLeft, metrics.elidedText(words, Qt::ElideRight, at.width() - 2.0 * kPad));
        paintPlate(painter, bedRoom(at), m_study, m_layout, plate, m_selected, theme);
    }
    if (m_layout.plates.empty()) {
        painter.setPen(theme.softInk);
        painter.drawText(rect(), Qt::AlignCenter, tr("No pieces yet: make rails first, under Ask."));
    }
}

void PlatePictures::choosePlate(int number)
{
    m_chosen = number;
    update();
    emit plateChosen(number);
}

void PlatePictures::mousePressEvent(QMouseEvent *event)
{
    for (std::size_t i = 0; i < m_layout.plates.size(); ++i) {
        const QRectF at = cell(i, width());
        if (!at.contains(event->position()))
            continue;
        const Plate &plate = m_layout.plates[i];
        choosePlate(plate.number);
        double scale = 1.0;
        const QRectF bed = bedRect(bedRoom(at), m_layout, scale);
        for (const PlacedPiece &placed : plate.pieces) {
            if (placedRect(bed, m_layout, placed, scale).adjusted(-2, -2, 2, 2).contains(event->position()))
                emit pieceChosen(placed.piece);
        }
    }
}

void PlatePictures::keyPressEvent(QKeyEvent *event)
{
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0 || m_layout.plates.empty()) {
        QWidget::keyPressEvent(event);
        return;
    }
    const auto last = m_layout.plates.back().number;
    choosePlate(std::clamp(m_chosen + step, m_layout.plates.front().number, last));
}

} // namespace inchpeg::app
