// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/record_loader.h"

#include <QObject>
#include <QPointF>

#include <vector>

namespace inchpeg::app
{

/// The unit of the axis that the curves of the study are drawn over, and how a record's x is shown on it.
struct ShownAxis {
    CurveAxis axis = CurveAxis::None;
    Unit unit;
    [[nodiscard]] double shown(double x) const { return unit.fromWorking(x); }
    [[nodiscard]] double kept(double x) const { return unit.toWorking(x); }
};

/// The best axis that any record of the study has: strain, else extension, else time.
ShownAxis shownAxis(const ProjectSession &session);

/// How near points of the plot are for a person: plot units a picture point.
struct PlotScale {
    double x = 1.0;
    double y = 1.0;
};

/// A marker of the selected piece as a row of the card.
struct MarkerRow {
    Marker marker = Marker::Toe;
    QString name;
    QString meaning;
    QString place;      ///< "1.35 %", or empty where the record gives none
    QString automatic;  ///< the place as found, where it is placed by hand
    QString handReason; ///< reason, who and when; empty for an automatic one
};

/// Placing markers by hand, without widgets. A marker is first moved (drag, keys or a typed place), and its
/// effect is shown; it is kept once there is a reason.
class MarkerPresenter : public QObject
{
    Q_OBJECT
public:
    MarkerPresenter(ProjectSession &session, RecordLoader &loader, QObject *parent = nullptr);

    [[nodiscard]] std::vector<MarkerRow> rows() const;
    /// Only a piece whose record is at hand, in a project that may be changed.
    [[nodiscard]] bool canPlace() const;

    /// Moves a marker to the nearest place at a point of the plot.
    void moveTo(Marker marker, QPointF at, PlotScale scale);
    /// Moves it by samples (or by hundredths of a percent for a strain) from where it is.
    void moveBy(Marker marker, int steps);
    /// Moves it to a typed place: a strain in percent, or a value on the axis; "none" for a yield. False
    /// where it was refused, which failed() has told.
    bool moveToTyped(Marker marker, const QString &text);

    [[nodiscard]] std::optional<Marker> moved() const;
    [[nodiscard]] QPointF movedPoint() const; ///< where the moved marker lies in the plot
    [[nodiscard]] QString movedText() const; ///< what it does: "Strength at 1.35 %: 38.2 MPa, found 41.0 MPa"
    bool keep(const QString &reason);
    void drop();
    bool backToAutomatic(Marker marker);
    bool allBackToAutomatic();
    [[nodiscard]] bool anyByHand() const;

signals:
    void changed();

private:
    struct Moved {
        Marker marker = Marker::Toe;
        std::optional<double> at;
        std::optional<TensileResult> preview; ///< only for records short enough to read at once
    };
    void move(Marker marker, std::optional<double> at);
    [[nodiscard]] std::optional<double> placeOf(Marker marker) const; ///< as HandMarker::at, by hand or found
    [[nodiscard]] QString placeText(Marker marker, std::optional<double> at) const;
    [[nodiscard]] const Piece *piece() const;

    ProjectSession &m_session;
    RecordLoader &m_loader;
    std::optional<Moved> m_moved;
    PieceId m_movedPiece;
};

QString markerLabel(Marker marker);   ///< "Strength", "Modulus from"
QString markerMeaning(Marker marker); ///< what it stands for

} // namespace inchpeg::app
