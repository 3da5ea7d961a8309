export { StationPage as default } from '../../places/bar/station-page';
