// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/rail_costs.h"

#include <QObject>

namespace inchpeg::app
{

/// The shown response against what a piece costs: as far as the Compare lens shows it.
class TradeOffPresenter : public QObject
{
    Q_OBJECT
public:
    explicit TradeOffPresenter(ProjectSession &session, QObject *parent = nullptr);

    [[nodiscard]] CostKind kind() const { return m_kind; }
    void setKind(CostKind kind);

    struct Point {
        TradeOffPoint point;
        QString title;
        bool isReference = false;
        bool isKnee = false;
        QString words; ///< "240 °C: 27.0 MPa (25.6 to 28.4, 5 pieces), 14.4 g (weighed)"
    };
    [[nodiscard]] const std::vector<Point> &points() const { return m_points; }
    /// Of the front, the cheapest first.
    [[nodiscard]] const std::vector<std::size_t> &front() const { return m_front; }
    [[nodiscard]] QString sentence() const { return m_sentence; }
    [[nodiscard]] QString costLabel() const;  ///< "Print time in min"
    [[nodiscard]] QString valueLabel() const; ///< "Strength in MPa"
    /// A value of the response in the unit that is shown.
    [[nodiscard]] double shownValue(double value) const;
    [[nodiscard]] const Notation &notation() const { return m_session.notation(); }

    void refresh();

signals:
    void changed();

private:
    [[nodiscard]] std::string costText(double cost) const;
    [[nodiscard]] std::string wordsOf(const TradeOffPoint &point, const std::string &title) const;

    ProjectSession &m_session;
    CostKind m_kind = CostKind::PrintTime;
    std::optional<Property> m_property;
    std::vector<Point> m_points;
    std::vector<std::size_t> m_front;
    QString m_sentence;
};

} // namespace inchpeg::app
